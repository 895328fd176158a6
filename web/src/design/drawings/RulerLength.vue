<script setup lang="ts">
/** One length on a rule with both scales, a few millimetres or inches either way. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['RulerDrawing']>()
const half = computed(() => (props.value < 12 ? 6 : 30))
const from = computed(() => Math.max(0, props.value - half.value))
const x = (mm: number): number => 12 + (316 * (mm - from.value)) / (2 * half.value)
const mm = computed(() =>
  Array.from({ length: 2 * half.value + 1 }, (_, i) => Math.ceil(from.value) + i).filter((one) => x(one) <= 328),
)
const part = computed(() => (half.value < 10 ? 64 : 16))
const inches = computed(() => {
  const first = Math.ceil((from.value / 25.4) * part.value)
  return Array.from({ length: 90 }, (_, i) => first + i).filter((one) => x((one / part.value) * 25.4) <= 328)
})
const tall = (one: number): number =>
  one % part.value === 0 ? 24 : one % (part.value / 2) === 0 ? 17 : one % (part.value / 4) === 0 ? 12 : 7
</script>

<template>
  <svg class="drawing" viewBox="0 0 340 184" role="img" :aria-label="`${mm_shown}, ${in_shown}`">
    <rect class="hollow" x="4" y="58" width="332" height="84" rx="4" />
    <path
      v-for="one in mm"
      :key="`m${one}`"
      class="lead"
      :d="`M${x(one)} 58v${one % 10 === 0 ? 24 : one % 5 === 0 ? 17 : 10}`"
    />
    <text
      v-for="one in mm.filter((n) => n % 10 === 0 && x(n) < 306)"
      :key="`t${one}`"
      :x="x(one) + 3"
      y="96"
      class="faint small"
    >
      {{ one }}
    </text>
    <path v-for="one in inches" :key="`i${one}`" class="lead" :d="`M${x((one / part) * 25.4)} 142v-${tall(one)}`" />
    <text
      v-for="one in inches.filter((n) => n % part === 0)"
      :key="`n${one}`"
      :x="x((one / part) * 25.4) + 3"
      y="118"
      class="faint small"
    >
      {{ one / part }}
    </text>
    <path class="mark" :d="`M${x(value)} 58l-8-14h16z`" />
    <path class="needle" :d="`M${x(value)} 46V154`" />
    <text :x="170" y="30" text-anchor="middle" class="strong">{{ mm_shown }}</text>
    <text x="170" y="176" text-anchor="middle" class="strong">{{ in_shown }}</text>
  </svg>
</template>

<style src="./drawing.css"></style>
