<script setup lang="ts">
/** The first seeds of a run along the furrow, and how all spacings are spread, between half and one and a half of the wanted one. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { counted } from '@/app/counted'

const props = defineProps<Schemas['StripDrawing']>()

const strip = computed(() => {
  const seeds = [0]
  for (const spacing of props.spacings) {
    const next = seeds[seeds.length - 1]! + spacing
    if (next > props.nominal * 9) break
    seeds.push(next)
  }
  return seeds.map((at) => 12 + (316 * at) / (props.nominal * 9))
})
const kind = (spacing: number): string => (spacing <= props.nominal / 2 ? 'close' : spacing > props.nominal * 1.5 ? 'miss' : '')
const BINS = 20
const bars = computed(() => {
  const counts = Array.from({ length: BINS }, () => 0)
  for (const spacing of props.spacings) counts[Math.min(BINS - 1, Math.floor((spacing / props.nominal) * 10))]! += 1
  const most = Math.max(1, ...counts)
  return counts.map((count, i) => ({
    x: 12 + i * 15.8,
    height: (70 * count) / most,
    kind: i < 5 ? 'out' : i >= 15 ? 'out' : 'in',
  }))
})
const x = (share: number): number => 12 + share * 158
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`${counted(spacings.length, 'spacing')}, wanted ${nominal_shown}, regular between ${half_shown} and ${more_shown}`"
  >
    <path class="ground" d="M4 40H336" />
    <template v-for="(at, i) in strip" :key="i">
      <ellipse class="seed" :class="{ off: i > 0 && kind(spacings[i - 1]!) === 'close' }" :cx="at" cy="34" rx="5" ry="7" />
      <path v-if="i > 0 && kind(spacings[i - 1]!) === 'miss'" class="limit" :d="`M${strip[i - 1]! + 7} 20H${at - 7}`" />
    </template>
    <rect class="band" :x="x(0.5)" y="66" width="158" height="76" />
    <rect
      v-for="bar in bars"
      :key="bar.x"
      :class="bar.kind === 'in' ? 'bar' : 'bar off'"
      :x="bar.x"
      :y="142 - bar.height"
      width="14.2"
      :height="bar.height"
    />
    <path class="lead" d="M12 142H328" />
    <path class="new" :d="`M${x(1)} 62V146`" />
    <text :x="x(0.5)" y="160" text-anchor="middle" class="faint">{{ half_shown }}</text>
    <text :x="x(1)" y="160" text-anchor="middle" class="strong">{{ nominal_shown }}</text>
    <text :x="x(1.5)" y="160" text-anchor="middle" class="faint">{{ more_shown }}</text>
    <text x="12" y="180" class="faint small">multiples</text>
    <text x="328" y="180" class="faint small" text-anchor="end">misses</text>
    <text :x="x(1)" y="180" class="faint small" text-anchor="middle">regular</text>
  </svg>
</template>

<style src="./drawing.css"></style>
