<script setup lang="ts">
/** A reading on its scale: from new to the limit, or with the window that is wanted. For parts without a drawing of their own. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['ScaleDrawing']>()

const LEFT = 20
const RIGHT = 316
const range = computed(() => {
  const values = [...props.marks.map((mark) => mark.value), ...(props.reading == null ? [] : [props.reading])]
  const low = Math.min(...values)
  const high = Math.max(...values)
  const room = (high - low || 1) * 0.12
  return { low: low - room, high: high + room }
})
const x = (value: number): number => LEFT + ((RIGHT - LEFT) * (value - range.value.low)) / (range.value.high - range.value.low)
const edges = computed(() => props.marks.filter((mark) => mark.kind === 'edge').map((mark) => mark.value))
const used = computed(() => props.marks.find((mark) => mark.kind === 'new'))
const anchor = (at: number): string => (at < 90 ? 'start' : at > 250 ? 'end' : 'middle')
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="[shown, ...marks.map((mark) => mark.text)].filter(Boolean).join(', ')"
  >
    <rect
      v-if="edges.length === 2"
      class="band"
      :x="x(Math.min(...edges)) - 3"
      y="78"
      :width="x(Math.max(...edges)) - x(Math.min(...edges)) + 6"
      height="26"
    />
    <rect
      v-if="used && reading != null"
      class="steel"
      :x="Math.min(x(used.value), x(reading))"
      y="84"
      :width="Math.abs(x(reading) - x(used.value))"
      height="14"
    />
    <path class="lead" :d="`M${LEFT} 91H${RIGHT}`" style="stroke-width: 2" />
    <g v-for="(mark, i) in marks" :key="mark.text">
      <path :class="mark.kind === 'limit' ? 'limit' : 'new'" :d="`M${x(mark.value)} 72V${116 + 22 * (i % 2)}`" />
      <text
        :x="x(mark.value)"
        :y="132 + 22 * (i % 2)"
        :text-anchor="anchor(x(mark.value))"
        :class="{ faint: mark.kind === 'new' }"
      >
        {{ mark.text }}
      </text>
    </g>
    <template v-if="reading != null">
      <path class="mark" :d="`M${x(reading)} 78l-9-16h18z`" />
      <text :x="x(reading)" y="50" class="strong" :text-anchor="anchor(x(reading))">{{ shown }}</text>
    </template>
  </svg>
</template>

<style src="./drawing.css"></style>
