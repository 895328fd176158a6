<script setup lang="ts">
/** Positions that should be alike, against their target and how far they may differ. Differences drawn larger. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['EvenDrawing']>()
const seen = computed(() => props.positions.slice(0, 12))
const reach = computed(
  () => Math.max(props.tolerance * 1.2, ...props.positions.map((one) => Math.abs(one.value - props.target))) || 1,
)
const MIDDLE = 80
const y = (value: number): number => MIDDLE - (34 * (value - props.target)) / reach.value
const width = computed(() => 268 / Math.max(2, seen.value.length))
const many = computed(() => seen.value.length > 5)
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Target ${target_shown}. ${positions.map((one) => `${one.name} ${one.shown}, ${one.correction}`).join('. ')}`"
  >
    <rect
      class="band"
      x="4"
      :y="y(target + tolerance / 2)"
      width="332"
      :height="y(target - tolerance / 2) - y(target + tolerance / 2)"
    />
    <path class="new" :d="`M4 ${MIDDLE}H336`" />
    <text x="334" :y="MIDDLE - 4" text-anchor="end" class="faint">{{ target_shown }}</text>
    <g v-for="(one, i) in seen" :key="one.name" :transform="`translate(${6 + (i + 0.5) * width} 0)`">
      <path class="vector" :d="`M0 ${MIDDLE}V${y(one.value)}`" />
      <circle :class="one.worst ? 'mark out' : 'hub'" :cy="y(one.value)" r="7" />
      <text
        v-if="!many || one.worst"
        :y="one.value >= target ? y(one.value) - 12 : y(one.value) + 24"
        text-anchor="middle"
        :class="{ strong: one.worst }"
      >
        {{ one.shown }}
      </text>
      <text y="162" text-anchor="middle" :class="one.worst ? 'strong' : 'faint'">{{ one.name }}</text>
      <text v-if="!many" y="180" text-anchor="middle" class="small">{{ one.correction }}</text>
    </g>
  </svg>
</template>

<style src="./drawing.css"></style>
