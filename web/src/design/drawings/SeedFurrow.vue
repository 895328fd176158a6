<script setup lang="ts">
/** Seeds in the ground, row by row, against the wanted depth. A wheel over a row marks one that runs behind a wheel. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['FurrowDrawing']>()

const TOP = 46
const deepest = computed(() => Math.max(props.target + props.tolerance * 1.6, ...props.rows.flatMap((row) => row.digs)))
const y = (mm: number): number => TOP + (94 * mm) / deepest.value
const width = computed(() => 268 / Math.max(1, props.rows.length))
const many = computed(() => props.rows.length > 6)
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Wanted ${target_shown}. ${rows.map((row) => `Row ${row.name}: ${row.shown}${row.off ? ', off' : ''}`).join('. ')}`"
  >
    <rect class="earth" x="4" :y="TOP" width="332" height="104" />
    <rect
      class="band"
      x="4"
      :y="y(Math.max(0, target - tolerance))"
      width="332"
      :height="y(target + tolerance) - y(Math.max(0, target - tolerance))"
    />
    <path class="new" :d="`M4 ${y(target)}H336`" />
    <path class="ground" :d="`M4 ${TOP}H336`" />
    <g v-for="(row, i) in rows" :key="row.name" :transform="`translate(${8 + (i + 0.5) * width} 0)`">
      <rect v-if="row.track" class="rubber" x="-8" y="24" width="16" height="20" rx="4" />
      <text y="18" text-anchor="middle" :class="row.off ? 'strong' : 'faint'">{{ row.name }}</text>
      <ellipse
        v-for="(dig, n) in row.digs"
        :key="n"
        class="seed"
        :class="{ off: row.off }"
        :cx="(n - (row.digs.length - 1) / 2) * Math.min(9, width / (row.digs.length + 1))"
        :cy="y(dig)"
        rx="4"
        ry="5.5"
      />
      <text v-if="!many || row.off" y="172" text-anchor="middle" :class="{ strong: row.off && !many, small: many }">
        {{ row.shown }}
      </text>
    </g>
    <text x="336" :y="y(target) - 5" text-anchor="end">{{ target_shown }}</text>
  </svg>
</template>

<style src="./drawing.css"></style>
