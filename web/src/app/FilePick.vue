<script setup lang="ts">
/** The product's own way to choose a file; it looks and is reached like a button. The same file can be chosen again. */
defineProps<{ label: string; accept: string; named?: string }>()
const emit = defineEmits<{ file: [file: File] }>()

function pick(event: Event): void {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) emit('file', file)
  input.value = ''
}
</script>

<template>
  <label class="file-pick"
    >{{ label }}<input type="file" class="unseen" :accept="accept" :aria-label="named ?? label" @change="pick"
  /></label>
</template>

<style scoped>
.file-pick {
  position: relative;
  display: inline-flex;
  align-items: center;
  justify-content: center;
  min-height: var(--target);
  padding: 0 14px;
  border: 1px dashed var(--quiet);
  border-radius: var(--radius);
  background: var(--surface);
  color: var(--ink);
  cursor: pointer;
  font-weight: 600;
}
.file-pick:hover {
  background: var(--sunk);
}
.file-pick:focus-within {
  outline: 3px solid var(--accent);
  outline-offset: 2px;
}
</style>
