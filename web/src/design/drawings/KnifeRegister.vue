<script setup lang="ts">
/** A knife section against the guard at both ends of its stroke, seen from above. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['RegisterDrawing']>()
/** Units of the picture a millimetre. */
const perMm = computed(() => 40 / Math.max(props.tolerance * 2, Math.abs(props.left), Math.abs(props.right), 1))
const ends = computed(() => [
  { name: 'Left end', x: 86, off: props.left * perMm.value, text: props.left_shown },
  { name: 'Right end', x: 254, off: -props.right * perMm.value, text: props.right_shown },
])
const band = computed(() => Math.min(66, props.tolerance * perMm.value))
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Knife section at its left end ${left_shown}, at its right end ${right_shown}`"
  >
    <g v-for="end in ends" :key="end.name">
      <text :x="end.x" y="18" text-anchor="middle" class="faint">{{ end.name }}</text>
      <rect class="band" :x="end.x - band" y="28" :width="2 * band" height="112" />
      <path
        class="steel"
        :d="`M${end.x + end.off - 44} 136L${end.x + end.off - 7} 56H${end.x + end.off + 7}L${end.x + end.off + 44} 136Z`"
      />
      <path class="hollow" :d="`M${end.x - 13} 140V66L${end.x} 30L${end.x + 13} 66V140Z`" />
      <path class="new" :d="`M${end.x} 24V146`" />
      <path class="mark" :d="`M${end.x + end.off} 140l-7 12h14z`" />
      <text :x="end.x" y="174" text-anchor="middle" class="strong">{{ end.text }}</text>
    </g>
    <path class="lead" d="M170 26V150" />
  </svg>
</template>

<style src="./drawing.css"></style>
