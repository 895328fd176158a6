<script setup lang="ts">
/** A disc from the side: when new, the limit, and today. The wear is drawn larger than it is, from the numbers. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['DiscDrawing']>()

const LIMIT_R = 46
const NEW_R = 84
const CENTRE = 90
const radius = (size: number): number => LIMIT_R + ((NEW_R - LIMIT_R) * (size - props.limit)) / (props.fresh - props.limit)
const today = computed(() => (props.reading == null ? undefined : Math.min(90, Math.max(22, radius(props.reading)))))

/** Labels keep 22 units apart, whatever the figures. */
const labels = computed(() => {
  const wanted = [
    { text: `New ${props.fresh_shown}`, r: NEW_R, kind: 'faint' },
    ...(today.value === undefined ? [] : [{ text: props.shown ?? '', r: today.value, kind: 'strong' }]),
    { text: `Limit ${props.limit_shown}`, r: LIMIT_R, kind: '' },
  ].sort((a, b) => b.r - a.r)
  let last = -Infinity
  return wanted.map((label) => {
    const natural = CENTRE - label.r * 0.72
    const y = Math.max(natural, last + 24, 18)
    last = y
    return { ...label, x0: CENTRE + label.r * 0.694, y0: natural, y }
  })
})
</script>

<template>
  <svg class="drawing" viewBox="0 0 340 184" role="img" :aria-label="`Disc: ${labels.map((label) => label.text).join(', ')}`">
    <circle v-if="today !== undefined" class="steel" :cx="CENTRE" :cy="CENTRE" :r="today" />
    <circle class="new" :cx="CENTRE" :cy="CENTRE" :r="NEW_R" />
    <circle class="limit" :cx="CENTRE" :cy="CENTRE" :r="LIMIT_R" />
    <circle class="hub" :cx="CENTRE" :cy="CENTRE" r="15" />
    <circle class="hub" :cx="CENTRE" :cy="CENTRE" r="4" />
    <g v-for="label in labels" :key="label.kind">
      <path class="lead" :d="`M${label.x0} ${label.y0} L182 ${label.y}`" />
      <circle :cx="label.x0" :cy="label.y0" r="2.6" fill="var(--ink)" />
      <text x="188" :y="label.y + 5" :class="label.kind">{{ label.text }}</text>
    </g>
    <text x="188" y="176" class="faint">wear drawn larger</text>
  </svg>
</template>

<style src="./drawing.css"></style>
