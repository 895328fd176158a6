<script setup lang="ts">
/** A whole number, as it is typed. What is none goes to the server as it stands, which refuses it at its field. */
import { computed, ref, watch } from 'vue'
import InputText from '@/design/controls/inputtext'

/** optional: nothing typed is none; otherwise it is refused as well. */
const props = defineProps<{ optional?: boolean }>()
// Without a type at run time: text that is no number passes through here as well.
const model = defineModel<number | null>({ required: true, type: null as never })
const text = ref(String(model.value ?? ''))
const meant = computed<unknown>(() => {
  const tidy = text.value.trim()
  if (!tidy && props.optional) return null
  return /^\d+$/.test(tidy) ? Number(tidy) : tidy
})
watch(model, (now) => {
  if (now !== meant.value) text.value = String(now ?? '')
})
watch(meant, (now) => {
  if (now !== model.value) model.value = now as number | null
})
</script>

<template>
  <InputText v-model="text" inputmode="numeric" maxlength="12" class="whole" />
</template>

<style scoped>
.whole {
  width: 84px;
}
</style>
