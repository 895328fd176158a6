<script setup lang="ts">
/** The clearance under each hold-down, with the two feelers as lines and the shop's card beside them. Gaps drawn larger. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['ClearancesDrawing']>()

const FLOOR = 132
const perMm = computed(() => 44 / props.high)
/** Felt only, it is drawn where the feelers say it lies. */
const gap = (one: Schemas['Clearance']): number =>
  Math.min(
    92,
    (one.measured ??
      { 'too-tight': props.low * 0.5, right: (props.low + props.high) / 2, 'too-wide': props.high * 1.5 }[one.state]) *
      perMm.value,
  )
const seen = computed(() => props.clearances.slice(0, 7))
const width = computed(() => 236 / Math.max(3, seen.value.length))
const lines = computed(() => [
  { y: FLOOR - props.low * perMm.value, text: props.low_shown, dy: 14 },
  { y: FLOOR - props.high * perMm.value, text: props.high_shown, dy: -4 },
])
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="clearances.map((one) => `${one.name} ${one.state.replace('-', ' ')}`).join(', ')"
  >
    <rect class="steel" x="6" :y="FLOOR" width="244" height="16" />
    <g v-for="(one, i) in seen" :key="one.name">
      <path
        class="rubber"
        :d="`M${10 + i * width} ${FLOOR - gap(one)}h${width - 6}v-14q0 -10 -10 -10h${26 - width}q-10 0 -10 10z`"
      />
      <path
        v-if="one.state !== 'right'"
        class="mark out"
        :d="`M${7 + (i + 0.5) * width} ${FLOOR - gap(one) - 42}l7 7-7 7-7-7z`"
      />
      <text :x="7 + (i + 0.5) * width" y="170" text-anchor="middle" :class="one.state === 'right' ? 'faint' : 'strong'">
        {{ one.name }}
      </text>
    </g>
    <g v-for="line in lines" :key="line.text">
      <path class="limit" :d="`M6 ${line.y}H258`" />
      <text x="262" :y="line.y + line.dy">{{ line.text }}</text>
    </g>
    <template v-if="card">
      <rect class="cardbar" x="322" :y="FLOOR - card * perMm" width="12" :height="card * perMm" />
      <text x="336" :y="FLOOR + 16" text-anchor="end" class="faint small">card</text>
    </template>
    <text v-if="clearances.length > seen.length" x="262" y="170" class="faint">
      + {{ clearances.length - seen.length }} more
    </text>
  </svg>
</template>

<style src="./drawing.css"></style>
