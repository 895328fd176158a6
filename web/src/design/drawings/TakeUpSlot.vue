<script setup lang="ts">
/** The take-up bolt in its slot, and where half a link out would bring it. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { scale } from './scale'

const props = defineProps<Schemas['SlotDrawing']>()
const x = computed(() => scale(0, props.total, 34, 306))
const rows = computed(() => [
  { y: 52, at: x.value(props.used), text: props.used_shown, kind: 'Now' },
  ...(props.after == null ? [] : [{ y: 128, at: x.value(props.after), text: props.after_shown, kind: 'Half a link out' }]),
])
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Take-up ${used_shown} of ${total_shown}${after_shown ? `, ${after_shown} with half a link out` : ''}`"
  >
    <g v-for="row in rows" :key="row.kind">
      <text x="22" :y="row.y - 26" class="faint">{{ row.kind }}</text>
      <text :x="318" :y="row.y - 26" text-anchor="end" class="strong">{{ row.text }}</text>
      <rect x="20" :y="row.y - 16" width="300" height="32" rx="16" class="hollow" />
      <rect x="20" :y="row.y - 16" :width="row.at - 20 + 14" height="32" rx="16" class="spent" />
      <circle class="steel" :cx="row.at" :cy="row.y" r="13" />
      <path class="lead" :d="`M${row.at - 7} ${row.y - 7}l14 14m0-14l-14 14`" />
    </g>
    <path class="limit" d="M306 34V74" />
    <text v-if="rows.length === 1" x="22" y="132">Whole travel {{ total_shown }}</text>
    <text v-else x="22" y="174" class="faint">whole travel {{ total_shown }}</text>
  </svg>
</template>

<style src="./drawing.css"></style>
