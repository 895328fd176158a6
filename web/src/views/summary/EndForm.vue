<script setup lang="ts">
/** A reason before something ends or begins again. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'

defineProps<{ ask: string; label: string; problem: string }>()
const reason = defineModel<string>('reason', { required: true })
const emit = defineEmits<{ submit: []; cancel: [] }>()
</script>

<template>
  <form class="end" @submit.prevent="emit('submit')" @keydown.esc="emit('cancel')">
    <label for="end-reason">{{ ask }}</label>
    <InputText id="end-reason" v-model="reason" v-focus maxlength="300" :invalid="!!problem" />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="acts">
      <Button type="submit" :label="label" /><Button
        text
        severity="secondary"
        label="Cancel"
        data-out
        @click="emit('cancel')"
      />
    </div>
  </form>
</template>

<style scoped>
.end {
  display: grid;
  gap: 6px;
  padding: 12px 14px;
  background: var(--surface);
  border: 2px solid var(--accent);
  border-radius: var(--radius);
}
.end :deep(input),
.end :deep(.p-button) {
  min-height: var(--target);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
</style>
