<script setup lang="ts">
/** The chopper seen from its end: each knife as long as it is heavy, and what each school leaves as an arrow in its ring of allowance. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['RotorDrawing']>()

const CX = 84
const CY = 94
const heaviest = computed(() => Math.max(1, ...props.blades.map((one) => one.mass)))
const point = (angle: number, r: number, cx = CX, cy = CY): string =>
  `${(cx + r * Math.cos((angle * Math.PI) / 180)).toFixed(1)} ${(cy - r * Math.sin((angle * Math.PI) / 180)).toFixed(1)}`
const crowded = computed(() => props.blades.length > 12)
/** The arrow's length: the ring of 15 is what is allowed. */
const arrow = (one: Schemas['Residual']): number => (one.angle === null ? 0 : Math.min(21, 15 * one.share))
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Chopper from its end, allowed ${allowed_shown}: ${residuals.map((one) => `${one.name} ${one.shown}`).join(', ')}`"
  >
    <circle class="new" :cx="CX" :cy="CY" r="68" />
    <circle class="hub" :cx="CX" :cy="CY" r="19" />
    <circle class="hub" :cx="CX" :cy="CY" r="5" />
    <g v-for="one in [...blades].sort((a, b) => Number(a.bad) - Number(b.bad))" :key="one.name">
      <path
        v-if="one.mass > 0"
        class="blade"
        :class="{ bad: one.bad }"
        :style="{ strokeWidth: crowded ? 4 : 11 }"
        :d="`M${point(one.angle, 21)} L${point(one.angle, 21 + 43 * (one.mass / heaviest))}`"
      />
      <path v-else class="new" :d="`M${point(one.angle, 21)} L${point(one.angle, 64)}`" />
      <text
        v-if="!crowded || one.bad"
        :x="point(one.angle, 77).split(' ')[0]"
        :y="Number(point(one.angle, 78).split(' ')[1]) + 6"
        text-anchor="middle"
        :class="one.bad ? 'strong' : 'faint'"
      >
        {{ one.name }}
      </text>
    </g>
    <g v-for="(one, i) in residuals" :key="one.name" :transform="`translate(208 ${22 + i * 39})`">
      <circle class="band" r="15" />
      <circle class="new" r="15" />
      <circle r="2" fill="var(--ink)" />
      <path v-if="arrow(one) > 1" class="vector" :d="`M0 0 L${point(one.angle ?? 0, arrow(one), 0, 0)}`" />
      <text x="26" y="-2" :class="one.name === recommended ? 'strong' : 'faint'">{{ one.name }}</text>
      <text x="26" y="15">{{ one.shown }}</text>
    </g>
    <text v-if="allowed_shown" x="336" y="181" text-anchor="end" class="faint small">ring: {{ allowed_shown }} allowed</text>
  </svg>
</template>

<style src="./drawing.css"></style>
