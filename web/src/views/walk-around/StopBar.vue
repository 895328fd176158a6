<script setup lang="ts">
/** What must not run or drive, until it is cleared; and what the operator noticed, until somebody knows the cause. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { ref } from 'vue'
import { api, Refused, write, type Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { date } from '@/app/words'
import SeverityMark from '@/design/SeverityMark.vue'

defineProps<{
  stops: { check: string; position: string; text: string }[]
  notes: Schemas['NoteOut'][]
  handOver?: Schemas['HandOverOut'] | null
  mayClose: boolean
}>()
const emit = defineEmits<{
  go: [check: string, position: string]
  closed: [note: string]
  opened: [note: Schemas['NoteOut']]
}>()
const post = usePost()
const closing = ref('')
const cause = ref('')
const problem = ref('')
/** The note closed last, for who sees that it was something else. */
const last = ref<Schemas['NoteOut'] | null>(null)

async function close(note: Schemas['NoteOut']): Promise<void> {
  try {
    await post(
      '/api/machines/{machine_id}/notes/{note_id}/close',
      { machine_id: note.machine, note_id: note.uuid },
      { cause: cause.value },
      { what: `Cause of “${note.text}”`, shown: cause.value },
    )
    closing.value = cause.value = problem.value = ''
    last.value = note
    emit('closed', note.uuid)
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'It could not be closed.'
  }
}
async function openAgain(note: Schemas['NoteOut']): Promise<void> {
  try {
    await write(() =>
      api.POST('/api/machines/{machine_id}/notes/{note_id}/open', {
        params: { path: { machine_id: note.machine, note_id: note.uuid } },
      }),
    )
    last.value = null
    problem.value = ''
    emit('opened', note)
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'It could not be opened again.'
  }
}
</script>

<template>
  <div v-if="stops.length || notes.length || handOver || last" class="bars">
    <div v-if="stops.length" class="bar stops" role="alert">
      <SeverityMark severity="stop" :size="20" wordless />
      <b>Stop. Do not run or drive:</b>
      <button
        v-for="stop in stops"
        :key="stop.check + stop.position"
        type="button"
        @click="emit('go', stop.check, stop.position)"
      >
        {{ stop.text }}
      </button>
    </div>
    <p v-if="handOver" class="bar">
      <span class="said"
        ><b>Handed over</b> by {{ handOver.giver }} to {{ handOver.taker
        }}<template v-if="handOver.note">: {{ handOver.note }}</template>
        <span class="quiet">{{ date(handOver.at) }}</span></span
      >
    </p>
    <p v-if="last" class="bar" role="status">
      <span class="said">Note closed: {{ last.text }}</span>
      <Button size="small" text severity="secondary" label="Open again" @click="openAgain(last)" />
      <Button
        size="small"
        text
        severity="secondary"
        label="Good"
        aria-label="Good: put this line away"
        @click="last = null"
      /><span v-if="problem" class="problem" role="alert">{{ problem }}</span>
    </p>
    <div v-for="note in notes" :key="note.uuid" class="bar">
      <span class="said"
        ><b>{{ note.station_name ? `${note.station_name}, from the cab:` : 'Operator:' }}</b> {{ note.text }}
        <span class="quiet">{{ note.by }}, {{ date(note.at) }}</span>
        <a v-for="photo in note.photos" :key="photo" :href="photo" target="_blank" rel="noopener"
          ><img :src="photo" alt="Picture with this note" /></a
      ></span>
      <form v-if="closing === note.uuid" @submit.prevent="close(note)">
        <InputText
          v-model="cause"
          maxlength="300"
          v-focus
          size="small"
          aria-label="Cause"
          placeholder="What was it"
          @keydown.esc="closing = ''"
        />
        <Button type="submit" size="small" label="Close note" />
        <span v-if="problem" class="problem" role="alert">{{ problem }}</span>
      </form>
      <Button
        v-else-if="mayClose"
        class="cause"
        size="small"
        text
        severity="secondary"
        label="Cause found"
        @click="closing = note.uuid"
      />
    </div>
  </div>
</template>

<style scoped>
.bars {
  display: grid;
  gap: 4px;
  padding: 2px 20px;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 10px;
  padding: 1px 10px;
  border-left: 4px solid var(--soil);
  background: var(--sunk);
  border-radius: 4px;
  min-height: 34px;
  line-height: 1.2;
}
.said {
  flex: 1 1 300px;
}
.said img {
  height: 34px;
  width: 52px;
  object-fit: cover;
  vertical-align: middle;
  border-radius: 4px;
}
.stops {
  border: 2px solid var(--stop);
  color: var(--stop);
  background: var(--surface);
}
.stops button {
  border: 0;
  background: none;
  padding: 0 6px;
  min-height: 34px;
  color: var(--stop);
  font-weight: 600;
  text-decoration: underline;
  cursor: pointer;
}
form {
  display: flex;
  gap: 6px;
  align-items: center;
  flex-wrap: wrap;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 700px) {
  .said {
    flex-basis: 200px;
    display: -webkit-box;
    -webkit-line-clamp: 2;
    -webkit-box-orient: vertical;
    overflow: hidden;
  }
  .bars {
    padding: 2px 12px;
  }
  .stops button {
    min-height: var(--target);
  }
  .cause {
    min-height: var(--target);
  }
}
</style>
