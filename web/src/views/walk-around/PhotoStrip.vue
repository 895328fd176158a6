<script setup lang="ts">
/** Pictures and words of the place in hand. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, ref } from 'vue'
import { api, Refused, write, type Photo } from '@/api/client'
import { outbox } from '@/api/outbox'
import { keepPhoto } from '@/api/photos'
import { byFinger } from '@/app/finger'
import { counted } from '@/app/counted'
import PinPicture from './PinPicture.vue'
import type { Entry } from './entry'

const props = defineProps<{
  id: string
  entry: Entry
  photos: Photo[]
  machine: string
  named: (check: string, position: string) => string
  readOnly: boolean
  mayPin: boolean
}>()
const emit = defineEmits<{ photos: [photos: Photo[]]; done: []; pinned: [] }>()
const file = ref<HTMLInputElement | null>(null)
const caption = ref('')
const problem = ref('')
const open = ref<'' | 'note' | 'photo'>('')
/** The picture taken away last, and the place it was of, for who wants it back. */
const removed = ref({ photo: '', place: '' })
const place = computed(() => `${entry.check.value.key} ${entry.position.value}`)
const entry = props.entry
const waiting = computed(() => outbox.of(props.id).filter((one) => one.blob).length)
const here = computed(() =>
  props.photos.filter((photo) => photo.check === entry.check.value.key && photo.position === entry.position.value),
)

async function chosen(): Promise<void> {
  const picked = file.value?.files?.[0]
  if (!picked) return
  problem.value = ''
  try {
    const [check, position] = [entry.check.value.key, entry.position.value]
    const typed = caption.value
    const body = { check, position, caption: typed.trim() }
    await keepPhoto(picked, '/api/walk-arounds/{walk_around_id}/photos', { walk_around_id: props.id }, body, {
      what: `Picture of ${props.named(check, position)}`,
      shown: body.caption,
      machine: props.machine,
    })
    // What was typed while the picture was being stored stays, and the hand stays with it.
    if (caption.value === typed) {
      caption.value = open.value = ''
      emit('done')
    }
  } catch (error) {
    problem.value = (error as Error).message
  }
  if (file.value) file.value.value = ''
}
async function change(photo: string, way: 'remove' | 'restore'): Promise<void> {
  try {
    emit(
      'photos',
      await write(() =>
        api.POST(`/api/walk-arounds/{walk_around_id}/photos/{photo_id}/${way}`, {
          params: { path: { walk_around_id: props.id, photo_id: photo } },
        }),
      ),
    )
    removed.value = way === 'remove' ? { photo, place: place.value } : { photo: '', place: '' }
    problem.value = ''
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'That could not be done.'
  }
}
/** Esc: the words stay, the focus goes back to the work. */
function close(): void {
  open.value = ''
  emit('done')
}
/** On a phone the camera opens at once; words go into the note. */
function pick(): void {
  if (byFinger()) file.value?.click()
  else open.value = 'photo'
}
defineExpose({ pick, write: () => (open.value = 'note') })
</script>

<template>
  <div v-if="here.length || open || entry.note.value || problem || waiting || removed.place === place" class="strip">
    <span v-for="photo in here" :key="photo.uuid" class="one"
      ><a class="thumb" :href="`/api/walk-arounds/${id}/photos/${photo.uuid}`" target="_blank" rel="noopener"
        ><img
          :src="`/api/walk-arounds/${id}/photos/${photo.uuid}`"
          :alt="photo.caption || `Picture of ${entry.check.value.name}, ${entry.label.value}`"
          loading="lazy" /></a
      ><button
        v-if="!readOnly"
        type="button"
        class="off"
        :aria-label="`Remove picture ${photo.caption}`"
        @click="change(photo.uuid, 'remove')"
      >
        ×
      </button>
      <PinPicture v-if="mayPin" :id="id" :photo="photo.uuid" :check="entry.check.value" @pinned="emit('pinned')"
    /></span>
    <p v-if="removed.place === place" role="status">
      Picture removed. <button type="button" class="back" @click="change(removed.photo, 'restore')">Put it back</button>
    </p>
    <form v-if="open === 'note'" class="words" data-kept @submit.prevent="((open = ''), entry.keepNote())">
      <InputText
        v-model="entry.note.value"
        v-focus
        maxlength="500"
        aria-label="Note for this place"
        placeholder="Note"
        @keydown.esc="close"
      />
      <Button type="submit" size="small" label="Save note" />
    </form>
    <form v-else-if="open === 'photo'" class="words" @submit.prevent="file?.click()">
      <InputText
        v-model="caption"
        v-focus
        maxlength="200"
        aria-label="Caption of the picture"
        placeholder="Caption, then Enter"
        @keydown.esc="close"
      />
      <Button type="submit" size="small" label="Take or choose" />
    </form>
    <p v-else-if="entry.note.value" class="note">{{ entry.note.value }}</p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p v-else-if="waiting" class="quiet" role="status">{{ counted(waiting, 'picture') }} on the way</p>
  </div>
  <input
    v-if="!readOnly"
    ref="file"
    class="unseen"
    type="file"
    accept="image/jpeg,image/png,image/webp"
    capture="environment"
    tabindex="-1"
    aria-label="Picture file"
    @change="chosen"
  />
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.thumb img {
  display: block;
  height: 44px;
  width: 62px;
  object-fit: cover;
  border-radius: 6px;
  border: 1px solid var(--line);
}
.one {
  display: inline-flex;
  align-items: center;
}
.back {
  border: 0;
  background: none;
  padding: 0 4px;
  min-height: var(--target);
  color: var(--accent);
  font-weight: 600;
  text-decoration: underline;
  cursor: pointer;
}
.off {
  width: var(--target);
  min-height: var(--target);
  border: 0;
  background: none;
  font-size: 1.3rem;
  cursor: pointer;
  color: var(--quiet);
}
.words {
  display: flex;
  gap: 6px;
  flex: 1 1 260px;
}
.words :deep(input) {
  flex: 1;
  min-height: var(--target);
}
.strip :deep(.p-button) {
  min-height: var(--target);
}
.note {
  flex: 1 1 100%;
  font-style: italic;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
</style>
