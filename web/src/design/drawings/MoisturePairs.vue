<script setup lang="ts">
/** What the machine showed (open) and what the grain store says (full), load by load: the arrows are what the offset has to bridge. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { scale } from './scale'

const props = defineProps<Schemas['MoistureDrawing']>()
const all = computed(() => props.pairs.flatMap((pair) => [pair.shown, pair.reference]))
const y = computed(() => scale(Math.min(...all.value) - 0.4, Math.max(...all.value) + 0.4, 148, 24))
const seen = computed(() => props.pairs.slice(0, 8))
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Stored ${stored_shown}, to store ${offset_shown}. ${pairs.map((pair) => `${pair.shown} % shown, ${pair.reference} % in the store`).join('. ')}`"
  >
    <path class="lead" d="M8 158H210" />
    <g v-for="(pair, i) in seen" :key="i" :transform="`translate(${22 + i * Math.min(46, 180 / seen.length)} 0)`">
      <path class="vector" :d="`M0 ${y(pair.shown)}V${y(pair.reference)}`" />
      <circle class="hub" :cy="y(pair.shown)" r="6" />
      <circle :cy="y(pair.reference)" r="6" fill="var(--ink)" />
      <text y="176" text-anchor="middle" class="faint">{{ i + 1 }}</text>
    </g>
    <text x="224" y="34" class="faint">stored now</text>
    <text x="224" y="54">{{ stored_shown }}</text>
    <text x="224" y="92" class="faint">store</text>
    <text x="224" y="114" class="strong">{{ offset_shown }}</text>
    <circle class="hub" cx="230" cy="150" r="6" />
    <text x="242" y="156" class="faint">shown</text>
    <circle cx="230" cy="172" r="6" fill="var(--ink)" />
    <text x="242" y="178" class="faint">grain store</text>
  </svg>
</template>

<style src="./drawing.css"></style>
