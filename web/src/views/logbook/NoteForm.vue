<script setup lang="ts">
/** What was odd this season, from the cab: words, a picture, and where on the machine it comes up again. */
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { reactive, ref } from 'vue'
import { answer, api, csrfToken, Refused, renewCsrf, write, type Schemas } from '@/api/client'
import { shrink } from '@/api/photos'
import { newUuid } from '@/api/uuid'
import { useAttempt } from '@/views/supply/useAttempt'

const props = defineProps<{ machine: number; stations: { key: string; name: string }[] }>()
const emit = defineEmits<{ kept: [notes: Schemas['NoteOut'][]] }>()
const at = useAttempt('It could not be kept. The words are still here.')
const note = reactive({ text: '', station: '', uuid: newUuid(), pictures: [] as { uuid: string; name: string; blob: Blob }[] })
const file = ref<HTMLInputElement | null>(null)
const unread = ref('')

async function pick(): Promise<void> {
  unread.value = ''
  for (const one of Array.from(file.value?.files ?? [])) {
    try {
      note.pictures.push({ uuid: newUuid(), name: one.name, blob: await shrink(one) })
    } catch {
      unread.value = `${one.name} is not a picture this device can read.`
    }
  }
  if (file.value) file.value.value = ''
}

async function keep(): Promise<void> {
  const path = { params: { path: { machine_id: props.machine } } }
  const done = await at.run(async () => {
    let notes = await write(() => api.POST('/api/machines/{machine_id}/notes', { ...path, body: { uuid: note.uuid, text: note.text, station: note.station } }))
    for (const one of note.pictures) notes = await send(one)
    emit('kept', notes)
  })
  if (done) Object.assign(note, { text: '', station: '', uuid: newUuid(), pictures: [] })
}

async function send(one: { uuid: string; blob: Blob }): Promise<Schemas['NoteOut'][]> {
  if (!csrfToken()) await renewCsrf()
  const body = new FormData()
  body.set('uuid', one.uuid)
  body.set('photo', one.blob, 'photo.jpg')
  const post = (): Promise<Schemas['NoteOut'][]> => answer<Schemas['NoteOut'][]>(
    fetch(`/api/machines/${props.machine}/notes/${note.uuid}/photos`, { method: 'POST', body, headers: { 'X-CSRFToken': csrfToken() } }).then(async (response) => {
      const json: unknown = await response.json().catch(() => undefined)
      return response.ok ? { data: json as Schemas['NoteOut'][], response } : { error: json, response }
    }),
  )
  return post().catch(async (error: unknown) => {
    if (!(error instanceof Refused) || error.status !== 403) throw error
    await renewCsrf()
    return post()
  })
}
</script>

<template>
  <form class="card" aria-labelledby="odd" @submit.prevent="keep">
    <h2 id="odd">What was odd this season?</h2>
    <Textarea v-model="note.text" rows="2" maxlength="500" aria-label="What was odd" placeholder="In your own words, while it is fresh" :invalid="at.field === 'text'" />
    <div class="tools">
      <label class="grow">Comes up again at <select v-model="note.station"><option value="">the station it names</option><option v-for="one in stations" :key="one.key" :value="one.key">{{ one.name }}</option></select></label>
      <Button type="button" severity="secondary" label="Picture" @click="file?.click()" /><Button type="submit" label="Keep" :disabled="at.busy" />
    </div>
    <input ref="file" class="unseen" type="file" accept="image/*" multiple tabindex="-1" aria-label="Pictures" @change="pick" />
    <p v-if="note.pictures.length" class="quiet">{{ note.pictures.map((one) => one.name).join(', ') }} <button type="button" class="link" @click="note.pictures = []">leave out</button></p>
    <p v-if="at.problem || unread" class="problem" role="alert">{{ at.problem || unread }}</p>
  </form>
</template>

<style scoped>
textarea { width: 100%; font: inherit; }
select { max-width: 100%; }
form { position: relative; }
</style>
