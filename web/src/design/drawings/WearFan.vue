<script setup lang="ts">
/** Readings over use, the line through them, the fan to the end of the season, and the limit. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { counted } from '@/app/counted'

const props = defineProps<Schemas['FanDrawing']>()
const end = computed(() => Math.max(props.at, ...props.readings.map((one) => one.use), 1e-9))
const all = computed(() => [props.fresh, props.limit, props.low, props.high, ...props.readings.map((one) => one.value)])
const span = computed(() => Math.max(1e-9, Math.max(...all.value) - Math.min(...all.value)))
const x = (use: number): number => 14 + (300 * use) / end.value
/** New stands on top, whether the figure falls or grows with wear. */
const y = (value: number): number => {
  const share = (value - Math.min(...all.value)) / span.value
  return 22 + 130 * (props.limit < props.fresh ? 1 - share : share)
}
const last = computed(() => props.readings.reduce((most, one) => Math.max(most, one.use), 0))
const through = computed(() => props.value - props.rate * (props.at - last.value))
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`${counted(readings.length, 'reading')}, expected ${value.toFixed(1)} between ${low.toFixed(1)} and ${high.toFixed(1)}, limit ${limit}`"
  >
    <path class="spent" :d="`M${x(last)} ${y(through)}L${x(at)} ${y(low)}V${y(high)}z`" />
    <path class="limit" :d="`M14 ${y(limit)}H326`" />
    <text x="14" :y="y(limit) - 6" class="small">limit {{ limit }}</text>
    <path class="needle" :d="`M14 ${y(fresh)}L${x(last)} ${y(through)}L${x(at)} ${y(value)}`" />
    <g v-for="(one, i) in readings" :key="i">
      <circle :class="suspect.includes(i) ? 'missing' : 'mark'" :cx="x(one.use)" :cy="y(one.value)" r="5" />
    </g>
    <path class="vector" :d="`M${x(at)} ${y(low)}V${y(high)}M${x(at) - 7} ${y(value)}h14`" />
    <text x="14" :y="y(fresh) - 7" class="faint small">new {{ fresh }}</text>
    <text :x="x(at)" :y="Math.min(y(value), y(high)) - 9" text-anchor="end" class="strong">{{ value.toFixed(1) }}</text>
    <text x="14" y="180" class="faint small">0</text>
    <text x="326" y="180" text-anchor="end" class="faint small">{{ at }} h or ha</text>
  </svg>
</template>

<style src="./drawing.css"></style>
