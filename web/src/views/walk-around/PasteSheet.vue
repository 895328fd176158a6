<script setup lang="ts">
/** What of a pasted column goes where, before it does. */
import Button from '@/design/controls/button'
import { nextTick, ref, watch } from 'vue'
import { counted } from '@/app/counted'
import type { Entry } from './entry'

const props = defineProps<{ entry: Entry; unit: string }>()
const form = ref<HTMLElement | null>(null)
watch(
  () => props.entry.pasted.value,
  () => void nextTick(() => form.value?.querySelector<HTMLElement>('[type=submit]')?.focus()),
)
</script>

<template>
  <form
    v-if="entry.pasted.value"
    ref="form"
    class="sheet"
    aria-label="Pasted column"
    @submit.prevent="entry.fillPasted()"
    @keydown.esc.stop="entry.dropPasted()"
  >
    <p>
      <b>{{ counted(entry.pasted.value.rows.length, 'place') }} from the pasted column.</b> Look at what goes where.
    </p>
    <ol>
      <li v-for="row in entry.pasted.value.rows" :key="row.position">
        <span>{{ row.label }}</span> <b>{{ row.raw.join(' · ') || 'nothing' }}</b>
        <span v-if="row.raw.some(Boolean)" class="quiet">{{ unit }}</span>
      </li>
    </ol>
    <p v-if="entry.pasted.value.over.length" class="over" role="alert">
      {{ counted(entry.pasted.value.over.length, 'line') }} more than there are places:
      {{ entry.pasted.value.over.slice(0, 4).join(', ') }}
    </p>
    <div class="acts">
      <Button type="submit" label="Fill them in" /><Button
        text
        severity="secondary"
        label="Leave it (Esc)"
        @click="entry.dropPasted()"
      />
    </div>
  </form>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 6px;
  grid-column: 1 / -1;
  padding-top: 6px;
  border-top: 2px solid var(--accent);
}
ol {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 2px 14px;
  max-height: 190px;
  overflow-y: auto;
}
li {
  display: flex;
  gap: 8px;
  justify-content: space-between;
  border-bottom: 1px solid var(--line);
}
.over {
  color: var(--stop);
  font-weight: 600;
}
.acts {
  display: flex;
  gap: 8px;
}
.acts :deep(.p-button) {
  min-height: var(--target);
}
</style>
