<script setup lang="ts">
/** Each load twice: what the machine counted over what the scale said. Loads left out are only outlined. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['LoadsDrawing']>()
const seen = computed(() => props.loads.slice(0, 5))
const most = computed(() => Math.max(props.least, ...props.loads.flatMap((load) => [load.machine, load.scale])))
const step = computed(() => 132 / Math.max(3, seen.value.length))
const width = (kg: number): number => (218 * kg) / most.value
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Factor ${shown}. ${loads.map((load, i) => `Load ${i + 1}: machine ${load.machine} kg, scale ${load.scale} kg${load.counts ? '' : ', left out'}`).join('. ')}`"
  >
    <g v-for="(load, i) in seen" :key="i" :transform="`translate(8 ${12 + i * step})`">
      <text y="20" class="faint">{{ i + 1 }}</text>
      <rect :class="load.counts ? 'bar' : 'hollow'" x="20" y="2" :width="width(load.machine)" :height="step / 2 - 5" />
      <rect
        :class="load.counts ? 'cardbar' : 'hollow'"
        x="20"
        :y="step / 2 - 2"
        :width="width(load.scale)"
        :height="step / 2 - 5"
      />
      <text :x="26 + Math.max(width(load.machine), width(load.scale), width(least))" y="14" class="small">
        {{ load.machine }} kg
      </text>
      <text :x="26 + Math.max(width(load.machine), width(load.scale), width(least))" :y="step / 2 + 12" class="small">
        {{ load.scale }} kg
      </text>
    </g>
    <path class="limit" :d="`M${28 + width(least)} 8V148`" />
    <text :x="28 + width(least)" y="162" text-anchor="middle" class="faint small">counts from {{ least }} kg</text>
    <rect class="bar" x="8" y="170" width="12" height="10" />
    <text x="24" y="180" class="faint small">machine</text>
    <rect class="cardbar" x="92" y="170" width="12" height="10" />
    <text x="108" y="180" class="faint small">scale</text>
    <text x="334" y="180" text-anchor="end" class="strong">{{ shown }}</text>
  </svg>
</template>

<style src="./drawing.css"></style>
