<script setup lang="ts">
/** Where a line of the list stands: a bin that fills, with its word. */
import { STATES } from './lineStates'

defineProps<{ state: keyof typeof STATES }>()
</script>

<template>
  <span class="state" :class="state">
    <svg viewBox="0 0 20 20" width="20" height="20" aria-hidden="true">
      <path class="bin" d="M2.5 5.5 4.5 17h11l2-11.5" :stroke-dasharray="state === 'number' ? '2.5 2.5' : undefined" />
      <path v-if="state === 'number'" class="line" d="M10 2v4M10 8.6v.4" />
      <path v-else-if="state === 'coming'" class="line" d="M10 1.5v9M6.5 7.5 10 11l3.5-3.5" />
      <path v-else-if="state === 'here'" class="fill" d="m3.6 9 1.3 7.4h10.2L16.4 9z" />
      <path v-else-if="state === 'fitted'" class="line" d="m5.5 9.5 3.4 3.6L17 3" />
    </svg>
    {{ STATES[state] }}
  </span>
</template>

<style scoped>
.state {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  font-weight: 600;
  white-space: nowrap;
}
svg {
  flex: none;
  fill: none;
  stroke: currentColor;
  stroke-width: 2;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.fill {
  fill: currentColor;
}
.number {
  color: var(--stop);
}
.order {
  color: var(--due);
}
.coming {
  color: var(--watch);
}
.here {
  color: var(--sound);
}
.fitted {
  color: var(--quiet);
}
</style>
