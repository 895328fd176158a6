<script setup lang="ts">
/** Services on a line of days: what is past today is overdue. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { counted } from '@/app/counted'
import { scale } from './scale'

const props = defineProps<Schemas['ServicesDrawing']>()
const seen = computed(() => props.services.slice(0, 5))
const last = computed(() => Math.max(60, ...props.services.map((one) => Math.min(400, one.days ?? 0))))
const first = computed(() => Math.min(-15, ...props.services.map((one) => Math.max(-200, one.days ?? 0))))
const x = computed(() => scale(first.value, last.value, 14, 326))
const step = computed(() => 150 / Math.max(3, seen.value.length))
const said = (one: { days: number | null; hours: number | null }): string =>
  one.days !== null
    ? one.days < 0
      ? `${counted(-one.days, 'day')} over`
      : `in ${counted(one.days, 'day')}`
    : one.hours !== null
      ? `${Math.round(one.hours)} h left`
      : 'last time not known'
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="services.map((one) => `${one.name}: ${one.state}, ${said(one)}`).join('. ')"
  >
    <rect class="band" :x="x(0)" y="6" :width="x(soon) - x(0)" height="156" />
    <path class="limit" :d="`M${x(0)} 6V162`" />
    <text :x="x(0)" y="180" text-anchor="middle" class="small">today</text>
    <g v-for="(one, i) in seen" :key="one.name" :transform="`translate(0 ${4 + i * step})`">
      <path class="lead" d="M14 26H326" />
      <text x="14" y="16" :class="['overdue', 'due'].includes(one.state) ? 'strong' : ''">{{ one.name }}</text>
      <text x="326" y="16" text-anchor="end" class="faint">{{ said(one) }}</text>
      <path v-if="one.days !== null" class="mark" :class="{ out: one.days <= 0 }" :d="`M${x(one.days)} 18l8 8-8 8-8-8z`" />
    </g>
  </svg>
</template>

<style src="./drawing.css"></style>
