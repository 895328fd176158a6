<script setup lang="ts">
/** The lip of the gauge wheel beside its disc, from the front: touching, or with a gap that soil falls through. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['GapDrawing']>()
const gap = computed(() => Math.min(96, (props.reading ?? 0) * 16))
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Gauge wheel to disc ${shown || 'not measured'}, wanted touching`"
  >
    <path class="ground" d="M4 168h332" />
    <path class="steel" d="M118 10 136 12 126 176 116 176z" />
    <g v-if="reading !== undefined" :transform="`translate(${gap} 0)`">
      <path class="rubber" d="M137 40q4-12 18-12h30q14 0 14 16v100q0 20-18 22h-30q-16-2-18-14z" />
      <path class="hub" d="M199 76h20v36h-20z" />
    </g>
    <template v-if="reading !== undefined && gap > 2">
      <path class="lead" :d="`M134 16 V4 M${137 + gap} 34 V4 M134 9 H${137 + gap}`" />
      <path d="M132 120l6 8M134 96l6 8M133 144l6 8" stroke="var(--due)" stroke-width="3" />
    </template>
    <text x="14" y="30" class="strong">{{ shown ?? '' }}</text>
    <text x="14" y="52" class="faint">wanted:</text>
    <text x="14" y="70" class="faint">touching</text>
    <text x="232" y="158" class="faint">gauge wheel</text>
    <text x="60" y="158" class="faint">disc</text>
  </svg>
</template>

<style src="./drawing.css"></style>
