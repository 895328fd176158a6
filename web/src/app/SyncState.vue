<script setup lang="ts">
/** The quiet half of what the line above says aloud: all is saved, or so much is on its way. */
import { computed } from 'vue'
import { outbox } from '@/api/outbox'
import { storageAlarm } from '@/api/storage'

const waiting = computed(() => outbox.waiting.value.length)
const saved = computed(() => !waiting.value && !outbox.refused.value.length && !storageAlarm.full)
const words = computed(() => {
  if (storageAlarm.full) return 'Not kept'
  if (waiting.value) return outbox.box.state === 'sending' ? `Sending ${waiting.value}` : `${waiting.value} kept`
  return saved.value ? 'All saved' : `${outbox.refused.value.length} not taken`
})
const meaning = computed(() => {
  if (storageAlarm.full) return 'This device has no room left: what is typed now stands in its field alone'
  return waiting.value
    ? 'What was typed and has not reached the server yet'
    : 'Everything typed on this device has reached the server'
})
</script>

<template>
  <span v-if="outbox.box.member" class="sync" role="status" :title="meaning">
    <svg viewBox="0 0 16 16" width="16" height="16" aria-hidden="true">
      <path v-if="saved" d="m2.5 8.5 3.6 3.6 7.4-8" />
      <path v-else d="M8 13V3M4 7l4-4 4 4" />
    </svg>
    <span class="words">{{ words }}</span>
  </span>
</template>

<style scoped>
.sync {
  position: relative;
  display: inline-flex;
  align-items: center;
  gap: 6px;
  color: var(--quiet);
  white-space: nowrap;
}
svg {
  fill: none;
  stroke: currentColor;
  stroke-width: 2;
  flex: none;
}
</style>
