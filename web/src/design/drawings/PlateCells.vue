<script setup lang="ts">
/** The largest seed over the cells of the plates there are, to one scale. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['CellsDrawing']>()
const seen = computed(() => [...props.cells].sort((a, b) => a.size - b.size).slice(0, 4))
const perMm = computed(() => 60 / Math.max(props.needed, ...props.cells.map((cell) => cell.size)))
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Largest seed ${largest_shown}, cell needed ${needed_shown}, ${chosen ? `plate ${chosen}` : 'none fits'}`"
  >
    <g v-for="(cell, i) in seen" :key="cell.name" :transform="`translate(${46 + i * 82} 0)`">
      <path class="steel" :d="`M-38 84H${(-cell.size * perMm) / 2}V114H${(cell.size * perMm) / 2}V84H38V128H-38Z`" />
      <ellipse
        class="seed"
        :class="{ off: cell.size < needed - 1e-9 }"
        :cy="cell.size < largest ? 66 : 98"
        :rx="(largest * perMm) / 2"
        ry="15"
      />
      <text y="148" text-anchor="middle" :class="cell.name === chosen ? 'strong' : 'faint'">{{ cell.name }}</text>
      <text y="168" text-anchor="middle" :class="{ strong: cell.name === chosen }">{{ cell.shown }}</text>
      <path v-if="cell.name === chosen" class="mark" d="M0 46l-9-14h18z" />
    </g>
    <text x="8" y="15" class="faint">largest seed {{ largest_shown }}, cell needed {{ needed_shown }}</text>
  </svg>
</template>

<style src="./drawing.css"></style>
