<script setup lang="ts">
/** What cannot be undone is asked about once, at its place, in words that say what will happen. Esc, or the second button, leaves it. */
import Button from '@/design/controls/button'
import { ref } from 'vue'

const props = defineProps<{
  label: string
  question: string
  yes: string
  no?: string
  plain?: boolean
  disabled?: boolean
  named?: string
  severity?: string
  size?: 'small'
}>()
const emit = defineEmits<{ yes: [] }>()
/** When the question came; nothing while it is not asked. */
const since = ref<number | null>(null)
const SOON = 500

function sure(): void {
  // The second press of a double click, or a key still held, has not read the question.
  if (since.value === null || performance.now() - since.value < SOON) return
  since.value = null
  emit('yes')
}
const ask = (): number => (since.value = performance.now())
defineExpose({ ask })
</script>

<template>
  <form v-if="since !== null" class="ask" :aria-label="props.question" @submit.prevent="sure">
    <p role="alert">{{ question }}</p>
    <Button v-focus type="submit" :label="yes" :severity="severity" :disabled="disabled" />
    <Button type="button" severity="secondary" :label="no ?? 'No, go back'" data-out @click="since = null" />
  </form>
  <button v-else-if="plain" type="button" class="link" :aria-label="named ?? label" :disabled="disabled" @click="ask">
    {{ label }}
  </button>
  <Button
    v-else
    type="button"
    :label="label"
    :aria-label="named ?? label"
    :severity="severity"
    :size="size"
    :disabled="disabled"
    @click="ask"
  />
</template>

<style scoped>
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  padding: 8px 12px;
  border-left: 4px solid var(--accent);
  background: var(--sunk);
  border-radius: 4px;
  text-align: left;
  white-space: normal;
}
.ask p {
  flex: 1 1 260px;
  min-width: 0;
  font-weight: 600;
  color: var(--ink);
}
.ask :deep(.p-button) {
  min-height: var(--target);
}
.link {
  border: 0;
  background: none;
  padding: 0 4px;
  color: var(--accent);
  font: inherit;
  font-weight: 600;
  text-decoration: underline;
  cursor: pointer;
  min-height: var(--target);
}
</style>
