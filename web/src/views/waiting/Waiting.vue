<script setup lang="ts">
/** What was typed on this device and has not arrived: what could not be taken, what is on its way, and what belongs to others. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, nextTick, onMounted, reactive, ref, watch } from 'vue'
import { answer, api, Refused, write, type Schemas } from '@/api/client'
import { isBegin, isReading, outbox, walkAroundOf, type Entry, type ReadingEntry } from '@/api/outbox'
import { newUuid } from '@/api/uuid'
import { counted } from '@/app/counted'
import { moment, upper } from '@/app/words'
import { useSession } from '@/app/session'
import RefusedBeginning from './RefusedBeginning.vue'

const session = useSession()
const heading = ref<HTMLElement | null>(null)
/** The walk-arounds that refused entries belong to, as they are now. */
const walks = reactive(
  new Map<
    string,
    { machine: Schemas['MachineOut']; brief: Schemas['WalkAroundBrief']; running: Schemas['WalkAroundBrief'][] }
  >(),
)
const form = reactive({ uuid: '', what: '' as '' | 'discard' | 'reopen', word: '', problem: '', busy: false })
const said = ref('')
/** What was typed in a walk-around that could not begin waits with it, and is on no way. */
const underWay = computed(() => {
  const stuck = new Set(outbox.refused.value.filter(isBegin).map(walkAroundOf))
  return outbox.waiting.value.filter((entry) => !stuck.has(walkAroundOf(entry)))
})
const ids = computed(() => [...new Set(outbox.refused.value.filter(isReading).map(walkAroundOf))])

async function look(): Promise<void> {
  for (const id of ids.value) {
    try {
      const found = await answer(
        api.GET('/api/walk-arounds/{walk_around_id}/summary', { params: { path: { walk_around_id: id } } }),
      )
      const start = await answer(
        api.GET('/api/machines/{machine_id}/start', { params: { path: { machine_id: found.machine.id } } }),
      )
      walks.set(id, { machine: found.machine, brief: found.walk_around, running: start.running.filter((one) => one.id !== id) })
    } catch (error) {
      if (!(error instanceof Refused)) throw error
    }
  }
}
onMounted(look)
watch(() => ids.value.join(), look)

const finished = (entry: Entry): boolean => !!walks.get(walkAroundOf(entry))?.brief.finished_at
const next = (entry: Entry): Schemas['WalkAroundBrief'] | undefined => walks.get(walkAroundOf(entry))?.running[0]

function done(words: string): void {
  said.value = words
  Object.assign(form, { uuid: '', what: '', word: '', problem: '' })
  void nextTick(() => heading.value?.focus())
}

async function attempt(what: () => Promise<void>): Promise<void> {
  if (form.busy) return
  form.busy = true
  try {
    await what()
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    form.problem = upper(error.message)
  } finally {
    form.busy = false
  }
}

/** Kept in words in the machine's logbook, or discarded with a word: either way the server knows of it before it leaves this device. */
const aside = (entry: ReadingEntry, outcome: 'logbook' | 'discarded'): Promise<void> =>
  attempt(async () => {
    const body = {
      uuid: entry.uuid,
      check: entry.body.check,
      position: entry.body.position,
      shown: (entry.about.shown ?? '').slice(0, 200) || entry.body.state || '',
      refused: entry.refused?.message ?? '',
      outcome,
      word: form.word,
      taken_at: entry.body.taken_at ?? new Date().toISOString(),
    }
    await write(() =>
      api.POST('/api/walk-arounds/{walk_around_id}/set-aside', {
        params: { path: { walk_around_id: walkAroundOf(entry) } },
        body,
      }),
    )
    outbox.drop(entry.uuid)
    done(outcome === 'logbook' ? `${entry.about.what}: kept in the logbook.` : `${entry.about.what}: discarded.`)
  })

const reopen = (entry: Entry): Promise<void> =>
  attempt(async () => {
    const id = walkAroundOf(entry)
    await write(() =>
      api.POST('/api/walk-arounds/{walk_around_id}/reopen', {
        params: { path: { walk_around_id: id } },
        body: { uuid: newUuid(), reason: form.word },
      }),
    )
    for (const one of outbox.refused.value.filter((other) => walkAroundOf(other) === id)) outbox.retry(one.uuid)
    await look()
    done('Opened again; what belongs to it is sent.')
  })

/** Into the walk-around of the same machine that is under way, as a reading of its own. */
function into(entry: ReadingEntry, there: Schemas['WalkAroundBrief']): void {
  outbox.put(there.id, { ...entry.body, uuid: newUuid() }, entry.about)
  outbox.drop(entry.uuid)
  done(`${entry.about.what}: sent to the walk-around begun ${moment(there.started_at)}.`)
}

function drop(entry: Entry): void {
  outbox.drop(entry.uuid)
  done(`${entry.about.what}: discarded.`)
}

function ask(entry: Entry, what: 'discard' | 'reopen'): void {
  Object.assign(form, { uuid: entry.uuid, what, word: '', problem: '' })
}

function submit(entry: Entry): void {
  if (form.what === 'reopen') return void reopen(entry)
  if (isReading(entry)) return void aside(entry, 'discarded')
  if (!form.word.trim()) return void (form.problem = 'Say why it is discarded')
  drop(entry)
}
</script>

<template>
  <section class="page">
    <h1 ref="heading" tabindex="-1">Not sent and not taken</h1>
    <p v-if="said" role="status">{{ said }}</p>
    <p v-if="!outbox.box.entries.length" class="quiet">Everything typed on this device has reached the server.</p>

    <section v-if="outbox.refused.value.length" aria-labelledby="refused">
      <h2 id="refused">{{ counted(outbox.refused.value.length, 'entry', 'entries') }} could not be taken</h2>
      <ul>
        <li v-for="entry in outbox.refused.value" :key="entry.uuid">
          <RefusedBeginning v-if="isBegin(entry)" :begin="entry" @done="done" />
          <template v-else>
            <div class="words">
              <p>
                <b
                  >{{ entry.about.what }}<template v-if="entry.about.shown">: {{ entry.about.shown }}</template></b
                >
                <span class="quiet">{{ entry.about.machine }}</span>
              </p>
              <p class="why">{{ upper(entry.refused!.message) }}</p>
              <form v-if="form.uuid === entry.uuid" @submit.prevent="submit(entry)" @keydown.esc="form.uuid = ''">
                <label :for="`word-${entry.uuid}`">{{
                  form.what === 'reopen'
                    ? 'Why is the walk-around opened again? It becomes a new version, and its report says so.'
                    : 'Why is it discarded?'
                }}</label>
                <InputText :id="`word-${entry.uuid}`" v-model="form.word" v-focus maxlength="300" :invalid="!!form.problem" />
                <Button type="submit" size="small" :label="form.what === 'reopen' ? 'Open again' : 'Discard'" />
                <Button size="small" text severity="secondary" label="Cancel" data-out @click="form.uuid = ''" />
              </form>
              <p v-if="form.problem && (form.uuid === entry.uuid || !form.uuid)" class="problem" role="alert">
                {{ form.problem }}
              </p>
            </div>
            <div v-if="form.uuid !== entry.uuid" class="acts">
              <template v-if="isReading(entry)">
                <RouterLink
                  v-if="!finished(entry)"
                  class="act"
                  :to="{
                    name: 'walk-around',
                    params: { id: walkAroundOf(entry) },
                    query: { check: entry.body.check, at: entry.body.position },
                  }"
                  >To its place</RouterLink
                >
                <Button v-else size="small" label="Open the walk-around again" @click="ask(entry, 'reopen')" />
                <Button
                  v-if="next(entry)"
                  size="small"
                  severity="secondary"
                  :label="`Into the walk-around begun ${moment(next(entry)!.started_at)}`"
                  @click="into(entry, next(entry)!)"
                />
                <Button size="small" severity="secondary" label="Into the logbook" @click="aside(entry, 'logbook')" />
              </template>
              <Button v-else size="small" severity="secondary" label="Try again" @click="outbox.retry(entry.uuid)" />
              <Button size="small" severity="secondary" text label="Discard" @click="ask(entry, 'discard')" />
            </div>
          </template>
        </li>
      </ul>
    </section>

    <section v-if="underWay.length" aria-labelledby="under-way">
      <h2 id="under-way">{{ counted(underWay.length, 'entry', 'entries') }} on the way</h2>
      <ul>
        <li v-for="entry in underWay" :key="entry.uuid">
          <p>
            <b
              >{{ entry.about.what }}<template v-if="entry.about.shown">: {{ entry.about.shown }}</template></b
            >
            <span class="quiet">{{ entry.about.machine }}</span>
          </p>
        </li>
      </ul>
    </section>

    <section v-if="outbox.others.value.length" aria-labelledby="others">
      <h2 id="others">Of somebody else</h2>
      <p class="quiet">Sent when whoever typed it logs in on this device. Nothing is sent under another name.</p>
      <ul>
        <li v-for="entry in outbox.others.value" :key="entry.uuid">
          <p>
            <b
              >{{ entry.about.what }}<template v-if="entry.about.shown">: {{ entry.about.shown }}</template></b
            >
            <span class="quiet">{{ entry.name || 'no name was kept with it' }}</span>
          </p>
          <div class="acts">
            <Button
              v-if="!entry.member && session.me"
              size="small"
              severity="secondary"
              label="It is mine"
              @click="outbox.retry(entry.uuid)"
            />
          </div>
        </li>
      </ul>
    </section>
  </section>
</template>

<style scoped src="./Waiting.css"></style>
