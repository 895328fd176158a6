<script setup lang="ts">
/** The way a tine tip takes over the ground: a loop when the reel runs ahead, a drag when it does not. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['ReelDrawing']>()
const R = 44
const path = computed(() => {
  const forward = R / Math.max(0.2, props.index)
  const points = Array.from({ length: 241 }, (_, i) => {
    const turn = (i / 240) * Math.PI * 5 - Math.PI / 2
    return `${(330 - forward * (turn + Math.PI / 2) * 0.44 - R * 0.44 * Math.cos(turn)).toFixed(1)} ${(118 + R * 0.9 * Math.sin(turn) * 0.9).toFixed(1)}`
  })
  return `M${points.join('L')}`
})
</script>

<template>
  <svg class="drawing" viewBox="0 0 340 184" role="img" :aria-label="`Reel ${shown} at an index of ${index_shown}`">
    <clipPath id="reel-frame"><rect x="4" y="70" width="332" height="96" /></clipPath>
    <path class="ground" d="M4 168H336" />
    <path v-for="n in 22" :key="n" class="stem" :d="`M${n * 15} 167V138`" />
    <g clip-path="url(#reel-frame)"><path class="way" :d="path" /></g>
    <circle class="new" cx="40" cy="38" r="30" />
    <path
      v-for="n in 6"
      :key="`b${n}`"
      class="lead"
      :d="`M40 38L${40 + 30 * Math.cos((n * Math.PI) / 3)} ${38 + 30 * Math.sin((n * Math.PI) / 3)}`"
    />
    <text x="84" y="34" class="strong">{{ shown }}</text>
    <text x="84" y="56" class="faint">index {{ index_shown }}</text>
    <path class="lead" d="M330 20H296m0 0l8-6m-8 6l8 6" />
    <text x="288" y="26" text-anchor="end" class="faint">driving</text>
  </svg>
</template>

<style src="./drawing.css"></style>
