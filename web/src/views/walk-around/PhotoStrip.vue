<script setup lang="ts">
/** Pictures and words of the place in hand. */
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import type { Photo } from '@/api/client'
import { keepPhoto, photoBox } from '@/api/photos'
import type { Entry } from './useEntry'

const props = defineProps<{ id: string; entry: Entry; photos: Photo[]; readOnly: boolean }>()
const file = ref<HTMLInputElement | null>(null)
const caption = ref('')
const problem = ref('')
const writing = ref(false)
const entry = props.entry
const here = computed(() => props.photos.filter((photo) => photo.check === entry.check.value.key && photo.position === entry.position.value))

async function chosen(): Promise<void> {
  const picked = file.value?.files?.[0]
  if (!picked) return
  problem.value = ''
  try {
    await keepPhoto(picked, { walkAround: props.id, check: entry.check.value.key, position: entry.position.value, caption: caption.value.trim() })
    caption.value = ''
  } catch (error) {
    problem.value = (error as Error).message
  }
  if (file.value) file.value.value = ''
}
defineExpose({ pick: () => file.value?.click(), write: () => (writing.value = true) })
</script>

<template>
  <div class="strip">
    <a v-for="photo in here" :key="photo.uuid" class="thumb" :href="`/api/walk-arounds/${id}/photos/${photo.uuid}`" target="_blank" rel="noopener"><img :src="`/api/walk-arounds/${id}/photos/${photo.uuid}`" :alt="photo.caption || `Picture of ${entry.check.value.name}, ${entry.label.value}`" loading="lazy" /></a>
    <template v-if="!readOnly">
      <input ref="file" class="unseen" type="file" accept="image/jpeg,image/png,image/webp" capture="environment" tabindex="-1" aria-label="Picture file" @change="chosen" />
      <form v-if="writing" class="words" @submit.prevent="entry.keepNote(), (writing = false)">
        <InputText v-model="entry.note.value" v-focus maxlength="500" aria-label="Note for this place" placeholder="Note" @keydown.esc="writing = false" />
        <Button type="submit" size="small" label="Keep note" />
      </form>
      <Button v-else size="small" severity="secondary" text :label="entry.note.value ? 'Change note' : 'Note (Alt N)'" @click="writing = true" />
      <InputText v-model="caption" class="caption" maxlength="200" aria-label="Caption of the next picture" placeholder="Caption, then picture" @keydown.enter.prevent="file?.click()" />
      <Button size="small" severity="secondary" label="Picture (Alt P)" @click="file?.click()" />
    </template>
    <p v-if="entry.note.value && !writing" class="note">{{ entry.note.value }}</p>
    <p v-if="problem || photoBox.problem" class="problem" role="alert">{{ problem || photoBox.problem }}</p>
    <p v-else-if="photoBox.waiting" class="quiet" role="status">{{ photoBox.waiting }} {{ photoBox.waiting === 1 ? 'picture' : 'pictures' }} on the way</p>
  </div>
</template>

<style scoped>
.strip { display: flex; flex-wrap: wrap; align-items: center; gap: 8px; }
.thumb img { display: block; height: 44px; width: 62px; object-fit: cover; border-radius: 6px; border: 1px solid var(--line); }
.caption { width: 190px; min-height: var(--target); }
.words { display: flex; gap: 6px; flex: 1 1 260px; }
.words :deep(input) { flex: 1; min-height: var(--target); }
.strip :deep(.p-button) { min-height: var(--target); }
.note { flex: 1 1 100%; font-style: italic; }
.problem { color: var(--stop); font-weight: 600; }
</style>
