<script setup lang="ts">
/** Bar and parallel arms from the side, driving to the left. The tilt is drawn larger than it is. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['BarDrawing']>()
const tilt = computed(() => Math.max(-13, Math.min(13, props.pitch * 4.5)))
const y = (x: number): number => 74 + Math.tan((-tilt.value * Math.PI) / 180) * (x - 140)
/** The arms leave the bar square to its bracket: a nose-down bar lifts their rear ends' bracket forward. */
const arm = (dy: number): string => `M${214 + tilt.value * 0.6} ${y(214) + dy}L286 ${96 + dy}`
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Bar ${shown}, front ${front_shown}, rear ${rear_shown} over ground`"
  >
    <path class="ground" d="M4 158H336" />
    <path class="new" d="M40 74H228" />
    <path class="steel" :d="`M44 ${y(44) - 7}L226 ${y(226) - 7}V${y(226) + 7}L44 ${y(44) + 7}Z`" />
    <path class="steel" :d="`M202 ${y(202) - 4}h24l${tilt * 0.6} 40h-24z`" />
    <path class="armline" :d="arm(8)" />
    <path class="armline" :d="arm(30)" />
    <path class="rubber" d="M278 92h20v40h-20z" />
    <circle class="steel" cx="288" cy="146" r="19" />
    <path class="lead" :d="`M62 ${y(62) + 8}V158M196 ${y(196) + 8}V158`" />
    <text x="68" y="132">{{ front_shown }}</text>
    <text x="190" y="132" text-anchor="end">{{ rear_shown }}</text>
    <path class="lead" d="M36 20H10m0 0l8-6m-8 6l8 6" />
    <text x="42" y="26" class="faint">driving</text>
    <text x="330" y="26" class="strong" text-anchor="end">{{ shown }}</text>
    <text x="8" y="178" class="faint">tilt drawn larger</text>
  </svg>
</template>

<style src="./drawing.css"></style>
