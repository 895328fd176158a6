<script setup lang="ts">
/** What turns in the machine: each shaft with what drives it, how fast it turns, and what speaks of it. */
import { computed } from 'vue'

interface Drawn {
  key: string
  name: string
  rpm: number
  ranged: string
  drives?: string
}
const props = defineProps<{ shafts: Drawn[]; named?: string }>()
const STEP = 92
const size = (rpm: number): number => 10 + 16 * Math.sqrt(Math.min(rpm, 3000) / 3000)
const placed = computed(() => props.shafts.map((one, i) => ({ ...one, x: 46 + i * STEP, r: size(one.rpm) })))
const width = computed(() => 46 + props.shafts.length * STEP)
</script>

<template>
  <div class="line" tabindex="0">
    <svg
      :viewBox="`0 0 ${width} 108`"
      :style="{ minWidth: `${width * 0.9}px` }"
      role="img"
      :aria-label="shafts.map((one) => `${one.name} ${Math.round(one.rpm)} rpm`).join(', ')"
    >
      <path :d="`M46 40H${width - 46}`" class="belt" />
      <g v-for="one in placed" :key="one.key" :class="{ named: one.name === named }">
        <circle :cx="one.x" cy="40" :r="one.r" />
        <path :d="`M${one.x} ${40 - one.r}V40`" />
        <text :x="one.x" y="84">{{ one.name }}</text>
        <text :x="one.x" y="100" class="rpm">{{ Math.round(one.rpm) }} rpm{{ one.ranged ? `, ${one.ranged}` : '' }}</text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.line {
  overflow-x: auto;
}
svg {
  width: 100%;
  max-height: 150px;
}
.belt {
  stroke: var(--line);
  stroke-width: 6;
}
circle {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 2;
}
path {
  stroke: var(--ink);
  stroke-width: 2;
}
text {
  text-anchor: middle;
  font-size: 11px;
  fill: var(--ink);
}
.rpm {
  fill: var(--quiet);
}
.named circle {
  fill: var(--accent-soft);
  stroke: var(--accent);
  stroke-width: 4;
}
.named text {
  font-weight: 700;
}
</style>
