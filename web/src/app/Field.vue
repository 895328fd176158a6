<script setup lang="ts">
/** A named field, with what was wrong about it under it. Whatever is typed in stands in the slot. */
import type { Attempt } from './useAttempt'

defineProps<{
  label: string
  hint?: string
  /** The field as the server names it, and the attempt it may be refused by. */
  name: string
  at: Attempt
}>()
</script>

<template>
  <label class="field-of" :class="{ wrong: at.field === name }">
    <span class="called"
      >{{ hint ? `${label} ` : label }}<small v-if="hint" class="quiet">{{ hint }}</small></span
    >
    <slot />
    <span v-if="at.field === name" class="problem" role="alert">{{ at.problem }}</span>
  </label>
</template>

<style scoped>
.field-of {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
  align-content: start;
  min-width: 0;
}
.called {
  font-weight: 600;
}
small {
  font-weight: 400;
}
.field-of :deep(input:not(.p-inputtext)) {
  min-height: var(--target);
  padding: 0 0.85rem;
  border: 1px solid var(--quiet);
  border-radius: 6px;
  background: var(--surface);
  color: var(--ink);
  font: inherit;
}
/* As the other controls are where nothing can be changed. */
.field-of :deep(:is(input:not(.p-inputtext), select):disabled) {
  background: var(--paper);
  color: var(--quiet);
  opacity: 1;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
.wrong :deep(:is(input, select)) {
  border-color: var(--stop);
  border-width: 2px;
}
</style>
