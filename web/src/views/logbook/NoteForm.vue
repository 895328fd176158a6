<script setup lang="ts">
/** What was odd this season, from the cab: words, pictures, and where on the machine it comes up again. Kept as it is typed and taken. */
import Button from '@/design/controls/button'
import Textarea from '@/design/controls/textarea'
import { computed, onBeforeUnmount, ref } from 'vue'
import { blobs } from '@/api/blobs'
import type { Schemas } from '@/api/client'
import { outbox } from '@/api/outbox'
import { sendPhoto, storePhoto } from '@/api/photos'
import { answeredOrKept, useOnItsWay } from '@/api/useOnItsWay'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { counted, listed } from '@/app/counted'
import { useSession } from '@/app/session'
import { useAttempt } from '@/app/useAttempt'
import { useDraft } from '@/app/useDraft'

const props = defineProps<{ machine: number; stations: { key: string; name: string }[] }>()
const emit = defineEmits<{ kept: [notes: Schemas['NoteOut'][]] }>()
const NOTES = '/api/machines/{machine_id}/notes'
const PICTURES = '/api/machines/{machine_id}/notes/{note_id}/photos'
const at = useAttempt('It could not be saved. The words are still here.')
const session = useSession()
const {
  draft: note,
  handedOver,
  forget,
} = useDraft(
  `lumvek:note:${session.me?.id}:${props.machine}`,
  () => ({ text: '', station: '', uuid: newUuid(), pictures: [] as { uuid: string; name: string }[] }),
  (kept) => !!(kept.text || kept.pictures.length),
)
const file = ref<HTMLInputElement | null>(null)
const unread = ref('')

/** Pictures that are being stored: what is saved meanwhile waits for them, they are of that note. */
let storing: Promise<void> = Promise.resolve()
const pick = (): void => void (storing = store(storing, Array.from(file.value?.files ?? [])))
async function store(before: Promise<void>, files: File[]): Promise<void> {
  await before
  unread.value = ''
  for (const one of files) {
    try {
      note.pictures.push({ uuid: await storePhoto(one), name: one.name })
    } catch (problem) {
      unread.value = `${one.name}: ${(problem as Error).message}`
    }
  }
  if (file.value) file.value.value = ''
}
function leaveOut(): void {
  for (const one of note.pictures) void blobs.remove(one.uuid)
  note.pictures = []
}

const post = usePost()
const pictured = (many: number): string => (many ? ` with ${counted(many, 'picture')}` : '')
async function keep(): Promise<void> {
  const { uuid, text, station } = note
  const params = { machine_id: props.machine }
  let pictures: typeof note.pictures = []
  const done = await at.run(async () => {
    await storing
    pictures = [...note.pictures]
    const about = { what: `Operator’s note${pictured(pictures.length)}`, shown: text }
    const sent = post(NOTES, params, { uuid, text, station }, about)
    try {
      // All of it lies in the box before anybody answers: whoever closes the page has nothing to lose.
      for (const one of pictures)
        sendPhoto(one.uuid, PICTURES, { ...params, note_id: uuid }, {}, { what: `Picture ${one.name}`, shown: text }, uuid)
      handedOver.value = true
      await answeredOrKept(uuid, sent)
    } catch (problem) {
      // Back into the form, all of it.
      outbox.letGo(uuid)
      for (const one of [uuid, ...pictures.map((picture) => picture.uuid)]) outbox.takeOut(one)
      handedOver.value = false
      throw problem
    }
  })
  if (!done) return
  forget({ text, station, pictures })
  // What was typed and taken while the answer was on its way is another note's.
  note.pictures = note.pictures.filter((one) => !pictures.some((sent) => sent.uuid === one.uuid))
}
const isHere = (entry: { params: Record<string, unknown> }): boolean => entry.params.machine_id === props.machine
const { waiting } = useOnItsWay(NOTES, (notes) => emit('kept', notes), isHere)
const follow = (note: string): number =>
  outbox.waiting.value.filter((entry) => entry.path === PICTURES && entry.params.note_id === note).length
const kept = computed(() => listed(waiting.value.map((one) => `“${one.text}”${pictured(follow(one.uuid))}`)))
/** Pictures go after the words; each brings the note as it is then. */
onBeforeUnmount(
  outbox.on({
    answered: (entry, notes) => {
      if (entry.path === PICTURES && isHere(entry)) emit('kept', notes as Schemas['NoteOut'][])
    },
  }),
)
</script>

<template>
  <form class="card" data-kept aria-labelledby="odd" @submit.prevent="keep">
    <h2 id="odd">What was odd this season?</h2>
    <Textarea
      v-model="note.text"
      rows="2"
      maxlength="500"
      aria-label="What was odd"
      placeholder="In your own words, while it is fresh"
      :invalid="at.field === 'text'"
    />
    <div class="tools">
      <label class="grow"
        >Comes up again at
        <select v-model="note.station">
          <option value="">the station it names</option>
          <option v-for="one in stations" :key="one.key" :value="one.key">{{ one.name }}</option>
        </select></label
      >
      <span class="pair"
        ><Button type="button" severity="secondary" label="Picture" @click="file?.click()" /><Button
          type="submit"
          label="Save"
          :disabled="at.busy"
      /></span>
    </div>
    <input ref="file" class="unseen" type="file" accept="image/*" multiple tabindex="-1" aria-label="Pictures" @change="pick" />
    <p v-if="note.pictures.length" class="quiet">
      {{ note.pictures.map((one) => one.name).join(', ') }}
      <button type="button" class="link" @click="leaveOut">leave out</button>
    </p>
    <p v-if="kept" class="quiet" role="status">Kept on this device, sent when the server is in reach: {{ kept }}</p>
    <p v-if="at.problem || unread" class="problem" role="alert">{{ at.problem || unread }}</p>
  </form>
</template>

<style scoped>
textarea {
  width: 100%;
  font: inherit;
}
select {
  max-width: 100%;
}
.pair {
  display: flex;
  gap: 12px;
  margin-left: auto;
}
form {
  position: relative;
}
</style>
