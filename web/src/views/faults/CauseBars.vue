<script setup lang="ts">
/** What it may still be: each cause with its share, where it began, and what speaks for it. */
import type { Schemas } from '@/api/client'
import { percent } from './faults'

defineProps<{ causes: Schemas['CauseOut'][]; sure: string }>()
</script>

<template>
  <ul>
    <li v-for="one in causes" :key="one.key" :class="{ out: one.ruled_out, sure: one.key === sure }">
      <span class="name">{{ one.ruled_out ? '✗ ' : one.key === sure ? '● ' : '' }}{{ one.name }}</span>
      <span class="share">{{ one.ruled_out ? 'ruled out' : percent(one.share) }}</span>
      <svg viewBox="0 0 100 8" preserveAspectRatio="none" aria-hidden="true">
        <rect class="all" width="100" height="8" />
        <rect class="now" :width="100 * one.share" height="8" />
        <path class="begun" :d="`M${100 * one.begun} 0v8`" />
      </svg>
      <small v-if="one.because.length && !one.ruled_out" class="quiet">{{ one.because.join('; ') }}</small>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 12px;
  padding: 6px 0;
}
svg {
  grid-column: 1 / -1;
  width: 100%;
  height: 8px;
}
.all {
  fill: var(--line);
}
.now {
  fill: var(--accent);
  transition: width 0.2s;
}
.begun {
  stroke: var(--ink);
  stroke-width: 0.8;
  vector-effect: non-scaling-stroke;
}
.sure .name {
  font-weight: 700;
}
.out .name {
  color: var(--quiet);
  text-decoration: line-through;
}
.share {
  font-variant-numeric: tabular-nums;
}
small {
  grid-column: 1 / -1;
}
@media (prefers-reduced-motion: reduce) {
  .now {
    transition: none;
  }
}
</style>
