<script setup lang="ts">
/** The drawing that belongs to a check, with the reading on it. */
import { computed } from 'vue'
import type { Check, Place } from '@/api/client'
import DiscWear from '@/design/drawings/DiscWear.vue'
import GaugeWheelGap from '@/design/drawings/GaugeWheelGap.vue'
import OpenerContact from '@/design/drawings/OpenerContact.vue'
import ScaleReading from '@/design/drawings/ScaleReading.vue'

const props = defineProps<{ check: Check; place?: Place }>()

const figure = (name: string): string => props.check.figures.find((one) => one.name === name)?.shown ?? ''
const seen = computed(() => (props.place?.state === 'seen' && !props.place.ask ? props.place : undefined))
const reading = computed(() => seen.value?.facts.reading)
const marks = computed(() => {
  const { new: fresh, limit, low, high } = props.check.limits
  if (fresh !== undefined && limit !== undefined)
    return [{ value: fresh, text: `New ${figure('When new')}`, kind: 'new' as const }, { value: limit, text: `Limit ${figure('Replace at')}`, kind: 'limit' as const }]
  return [{ value: low ?? 0, text: `From ${figure('From')}`, kind: 'edge' as const }, { value: high ?? 0, text: `To ${figure('To')}`, kind: 'edge' as const }]
})
</script>

<template>
  <DiscWear v-if="check.drawing === 'disc'" :reading="reading" :shown="seen?.shown" :fresh="check.limits.new ?? 0" :limit="check.limits.limit ?? 0" :fresh-shown="figure('When new')" :limit-shown="figure('Replace at')" />
  <OpenerContact v-else-if="check.drawing === 'contact'" :facts="seen?.facts" :shown="seen?.contact_shown" :low="check.limits.low ?? 0" :high="check.limits.high ?? 0" :band-shown="`${figure('From')} to ${figure('To')}`" />
  <GaugeWheelGap v-else-if="check.drawing === 'gauge-wheel-gap'" :reading="reading" :shown="seen?.shown" />
  <ScaleReading v-else-if="check.drawing === 'scale'" :reading="reading" :shown="seen?.shown" :marks="marks" />
</template>
