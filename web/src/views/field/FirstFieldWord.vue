<script setup lang="ts">
/** Whether somebody should look behind a machine, in a line; nothing where there is nothing to say. */
import type { Schemas } from '@/api/client'
import { date } from '@/app/words'

defineProps<{ firstField: Schemas['FirstFieldOut'] }>()
const WORDS = {
  first: 'First field: to be looked at',
  again: 'First field: look again',
  changed: 'Other ground: look behind it again',
} as const
</script>

<template>
  <p v-if="firstField.state === 'right' && firstField.at" class="quiet">✓ looked at {{ date(firstField.at) }}</p>
  <p v-else-if="firstField.state !== 'idle' && firstField.state !== 'right'" class="asked">
    <b>! {{ WORDS[firstField.state] }}</b> – {{ firstField.words }}
  </p>
</template>

<style scoped>
.asked {
  border-left: 4px solid var(--watch);
  padding: 6px 12px;
  background: var(--surface);
}
</style>
