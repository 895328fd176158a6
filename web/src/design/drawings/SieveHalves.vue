<script setup lang="ts">
/** Each sieve in its left and right half: the louvres stand open by the gap that feelers found. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['SievesDrawing']>()
const seen = computed(() => props.sieves.slice(0, 3))
const step = computed(() => 176 / Math.max(2, seen.value.length))
const widest = computed(() => Math.max(1, ...props.sieves.flatMap((one) => [one.left, one.right])))
const lift = (gap: number): number => 4 + (20 * gap) / widest.value
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="
      sieves.map((one) => `${one.name}: left ${one.left_shown}, right ${one.right_shown}, display ${one.shown}`).join('. ')
    "
  >
    <g v-for="(one, i) in seen" :key="one.name" :transform="`translate(0 ${i * step})`">
      <text x="6" y="18" class="faint">{{ one.name }}, display {{ one.shown }}</text>
      <g v-for="side in ['left', 'right'] as const" :key="side" :transform="`translate(${side === 'left' ? 6 : 176} 0)`">
        <path class="lead" d="M0 58H158" />
        <path
          v-for="n in 6"
          :key="n"
          class="louvre"
          :class="{ off: !one.even }"
          :d="`M${(n - 1) * 26 + 2} 58L${(n - 1) * 26 + 22} ${58 - lift(one[side])}`"
        />
        <text x="79" :y="Math.min(step - 4, 78)" text-anchor="middle" :class="one.even ? '' : 'strong'">
          {{ side }} {{ side === 'left' ? one.left_shown : one.right_shown }}
        </text>
      </g>
    </g>
  </svg>
</template>

<style src="./drawing.css"></style>
