<script setup lang="ts">
/** A tray on the truck: the pieces to carry, as many of them dark as are expected to be used. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['TrayDrawing']>()
const SHOWN = 24
const pieces = computed(() => Math.min(SHOWN, props.carry))
const columns = computed(() => Math.min(8, Math.max(4, pieces.value)))
const at = (i: number): string =>
  `translate(${24 + (i % columns.value) * (292 / columns.value)} ${104 - Math.floor(i / columns.value) * 32})`
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Carry ${carry}, ${expected.toFixed(1)} expected to be used`"
  >
    <path class="hollow" d="M12 40v90h316V40" />
    <g v-for="i in pieces" :key="i" :transform="at(i - 1)">
      <circle class="hub" cx="13" cy="12" r="12" />
      <circle
        v-if="i - 1 < expected"
        class="mark"
        cx="13"
        cy="12"
        r="12"
        :style="{ clipPath: `inset(${24 * (1 - Math.min(1, expected - i + 1))}px 0 0 0)` }"
      />
      <circle class="hub" cx="13" cy="12" r="4" />
    </g>
    <text x="12" y="28" class="strong">{{ carry > SHOWN ? `${carry}, ${SHOWN} of them drawn` : carry }}</text>
    <text x="12" y="160" class="faint small">filled: {{ expected.toFixed(1) }} expected before the next delivery</text>
  </svg>
</template>

<style src="./drawing.css"></style>
