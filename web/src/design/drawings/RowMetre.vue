<script setup lang="ts">
/** A metre of the row with its seeds to scale, under the disc that drops them. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['RowMetreDrawing']>()
const seeds = computed(() => {
  const many = Math.min(120, Math.floor(1000 / props.spacing))
  return Array.from({ length: many + 1 }, (_, i) => 12 + (316 * i * props.spacing) / 1000)
})
const dots = computed(() =>
  Array.from({ length: Math.min(60, props.cells) }, (_, i) => (i / Math.min(60, props.cells)) * Math.PI * 2),
)
const second = computed(() => Math.min(328, 12 + (316 * props.spacing) / 1000))
</script>

<template>
  <svg class="drawing" viewBox="0 0 340 184" role="img" :aria-label="`Seeds ${shown} apart, disc at ${disc_shown}`">
    <circle class="steel" cx="56" cy="52" r="44" />
    <circle
      v-for="(angle, i) in dots"
      :key="i"
      class="hub"
      :cx="56 + 36 * Math.cos(angle)"
      :cy="52 + 36 * Math.sin(angle)"
      r="2.6"
    />
    <path class="lead" d="M56 30a22 22 0 0 1 22 22m0 0l-6-7m6 7l7-6" />
    <text x="112" y="58" class="strong">{{ disc_shown }}</text>
    <path class="ground" d="M4 132H336" />
    <ellipse v-for="(at, i) in seeds" :key="`s${i}`" class="seed" :cx="at" cy="125" rx="4" ry="6" />
    <path class="lead" :d="`M12 142V152M${second} 142V152M12 147H${second}`" />
    <text :x="Math.max(12, second / 2 - 20)" y="172" class="strong">{{ shown }}</text>
    <text x="328" y="172" text-anchor="end" class="faint">1 m of row</text>
  </svg>
</template>

<style src="./drawing.css"></style>
