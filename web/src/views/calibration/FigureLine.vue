<script setup lang="ts">
/** How a kept figure went from time to time. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { date } from '@/app/words'

const props = defineProps<{ series: Schemas['SeriesOut'] }>()
const WIDTH = 300
const HEIGHT = 90
const points = computed(() => props.series.points)
const low = computed(() => Math.min(...points.value.map((one) => one.value)))
const high = computed(() => Math.max(...points.value.map((one) => one.value)))
const x = (i: number): number => 12 + (i * (WIDTH - 24)) / Math.max(1, points.value.length - 1)
const y = (value: number): number => HEIGHT - 14 - ((value - low.value) / (high.value - low.value || 1)) * (HEIGHT - 36)
const line = computed(() => points.value.map((one, i) => `${x(i)},${y(one.value)}`).join(' '))
</script>

<template>
  <figure>
    <figcaption>
      <b>{{ series.name }}</b> {{ points[0]!.words }} → {{ points.at(-1)!.words }}
      <small class="quiet">{{ date(points[0]!.at) }} to {{ date(points.at(-1)!.at) }}</small>
    </figcaption>
    <svg
      :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
      role="img"
      :aria-label="`${series.name}: ${points.map((one) => one.words).join(', ')}`"
    >
      <polyline :points="line" />
      <circle v-for="(one, i) in points" :key="one.at" :cx="x(i)" :cy="y(one.value)" r="4" />
    </svg>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
small {
  display: block;
}
polyline {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2;
}
circle {
  fill: var(--surface);
  stroke: var(--accent);
  stroke-width: 2;
}
</style>
