<script setup lang="ts">
/** What was odd this season, from the cab: words, a picture, and where on the machine it comes up again. */
import Button from '@/design/controls/button'
import Textarea from '@/design/controls/textarea'
import { onBeforeUnmount, reactive, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { outbox } from '@/api/outbox'
import { keepPhoto } from '@/api/photos'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { useAttempt } from '@/app/useAttempt'

const props = defineProps<{ machine: number; stations: { key: string; name: string }[] }>()
const emit = defineEmits<{ kept: [notes: Schemas['NoteOut'][]] }>()
const at = useAttempt('It could not be saved. The words are still here.')
const note = reactive({ text: '', station: '', uuid: newUuid(), pictures: [] as { uuid: string; name: string; blob: Blob }[] })
const file = ref<HTMLInputElement | null>(null)
const unread = ref('')

async function pick(): Promise<void> {
  unread.value = ''
  for (const one of Array.from(file.value?.files ?? [])) {
    try {
      await createImageBitmap(one).then((picture) => picture.close())
      note.pictures.push({ uuid: newUuid(), name: one.name, blob: one })
    } catch {
      unread.value = `${one.name} is not a picture this device can read.`
    }
  }
  if (file.value) file.value.value = ''
}

const post = usePost()
async function keep(): Promise<void> {
  const about = { what: 'Operator’s note', shown: note.text }
  const done = await at.run(async () => {
    const notes = await post(
      '/api/machines/{machine_id}/notes',
      { machine_id: props.machine },
      { uuid: note.uuid, text: note.text, station: note.station },
      about,
    )
    const params = { machine_id: props.machine, note_id: note.uuid }
    for (const one of note.pictures)
      await keepPhoto(
        one.blob,
        '/api/machines/{machine_id}/notes/{note_id}/photos',
        params,
        {},
        { what: `Picture ${one.name}`, shown: note.text },
      )
    emit('kept', notes)
  })
  if (done) Object.assign(note, { text: '', station: '', uuid: newUuid(), pictures: [] })
}
/** Pictures go after the words; each brings the note as it is then. */
onBeforeUnmount(
  outbox.on({
    answered: (entry, notes) => {
      if (entry.path === '/api/machines/{machine_id}/notes/{note_id}/photos' && entry.params.machine_id === props.machine)
        emit('kept', notes as Schemas['NoteOut'][])
    },
  }),
)
</script>

<template>
  <form class="card" aria-labelledby="odd" @submit.prevent="keep">
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
      <Button type="button" severity="secondary" label="Picture" @click="file?.click()" /><Button
        type="submit"
        label="Save"
        :disabled="at.busy"
      />
    </div>
    <input ref="file" class="unseen" type="file" accept="image/*" multiple tabindex="-1" aria-label="Pictures" @change="pick" />
    <p v-if="note.pictures.length" class="quiet">
      {{ note.pictures.map((one) => one.name).join(', ') }}
      <button type="button" class="link" @click="note.pictures = []">leave out</button>
    </p>
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
form {
  position: relative;
}
</style>
