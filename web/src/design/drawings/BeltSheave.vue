<script setup lang="ts">
/** The belt between the two halves of its sheave: the further they stand apart, the deeper it rides. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['SheaveDrawing']>()
/** Half the distance the halves stand off where the window is met, and how far the reading moves them. */
const off = computed(() => {
  const window = Math.max(props.high - props.low, 0.5)
  return Math.max(-15, Math.min(24, ((props.reading - (props.low + props.high) / 2) / window) * 12))
})
const half = (side: 1 | -1): string => {
  const x = 128 + side * (14 + off.value / 2)
  return `M${x} 150L${x + side * 34} 34H${x + side * 62}V168H${x}Z`
}
/** A belt of one width sinks until the halves stand that far apart at its sides. */
const depth = computed(() => 70 + off.value * 1.7)
const edge = computed(() => 128 + 62 + 14 + off.value / 2)
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Over both halves ${shown}, wanted ${low_shown} to ${high_shown}`"
  >
    <path class="steel" :d="half(-1)" />
    <path class="steel" :d="half(1)" />
    <path class="rubber" :d="`M${128 - 34} ${depth - 14}h68l-9 30h-50z`" />
    <path class="lead" :d="`M${256 - edge} 30V14M${edge} 30V14M${256 - edge} 19H${edge}`" />
    <text x="128" y="12" text-anchor="middle" class="strong">{{ shown }}</text>
    <text x="232" y="92" class="faint">wanted</text>
    <text x="232" y="112">{{ low_shown }}</text>
    <text x="232" y="130">to {{ high_shown }}</text>
    <text x="232" y="166" class="faint small">movement</text>
    <text x="232" y="181" class="faint small">drawn larger</text>
  </svg>
</template>

<style src="./drawing.css"></style>
