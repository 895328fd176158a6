<script setup lang="ts">
/** A link to give on: shown whole, copied with one press. */
import Button from '@/design/controls/button'
import { computed, ref } from 'vue'

const props = defineProps<{ path: string; named: string }>()
const whole = computed(() => new URL(props.path, window.location.origin).href)
const copied = ref(false)
const field = ref<HTMLInputElement | null>(null)

async function copy(): Promise<void> {
  try {
    await navigator.clipboard.writeText(whole.value)
    copied.value = true
  } catch {
    field.value?.select() // the browser does not allow it: it stands ready to be copied by hand
  }
}
</script>

<template>
  <span class="link-out">
    <input ref="field" :value="whole" readonly :aria-label="named" @focus="field?.select()" />
    <Button size="small" severity="secondary" :label="copied ? 'Copied' : 'Copy'" @click="copy" />
  </span>
</template>

<style scoped>
.link-out {
  display: flex;
  gap: 8px;
  width: 100%;
}
input {
  flex: 1;
  min-width: 0;
  min-height: var(--target);
  padding: 0 10px;
  font: inherit;
  color: var(--ink);
  background: var(--sunk);
  border: 1px solid var(--quiet);
  border-radius: 6px;
}
</style>
