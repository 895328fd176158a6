<script setup lang="ts">
/** Something is wrong with a machine: from words, or from where and how it shows, to the symptom a trace begins with. */
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { answer, api, type Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { counted } from '@/app/counted'
import { date } from '@/app/words'
import { useAttempt } from '@/app/useAttempt'
import { useOnward } from '@/app/useOnward'
import MachineTabs from '@/views/machine/MachineTabs.vue'
import MachineDrawing from './MachineDrawing.vue'
import SwapBegin from './SwapBegin.vue'
import { OUTCOMES, SIGNS_OF } from './faults'

const props = defineProps<{ id: string }>()
const found = ref<Schemas['FaultsOut'] | null>(null)
const at = useAttempt('The faults could not be read.')
const post = usePost()
const onward = useOnward()
const path = { machine_id: Number(props.id) }
const said = reactive({ words: String(useRoute().query.words ?? ''), station: '', when: '', sound: '', follows: '' })
/** The operator's note whose words were taken. */
const note = ref<string | null>(null)
const load = (): Promise<boolean> =>
  at.read(
    async () =>
      void (found.value = await answer(api.GET('/api/faults/machines/{machine_id}', { params: { path, query: { ...said } } }))),
  )
onMounted(load)
let late = 0
watch(said, () => {
  clearTimeout(late)
  late = window.setTimeout(load, 250)
})
const anything = computed(() => Object.values(said).some(Boolean))
/** One UUID a symptom: pressed again after a lost answer it is the same trace. */
const uuids: Record<string, string> = {}
const begin = (symptom: string): Promise<boolean> =>
  at.run(async () => {
    const uuid = (uuids[symptom] ??= newUuid())
    const body = { uuid, symptom, words: said.words, note: note.value }
    await post('/api/faults/machines/{machine_id}/traces', path, body, {
      what: 'Fault',
      machine: found.value?.machine.name,
    })
    await onward({ name: 'trace', params: { id: props.id, trace: uuid } })
  })
function take(one: Schemas['NoteOut']): void {
  note.value = one.uuid
  said.words = one.text
}
const toggle = (sign: 'station' | 'when' | 'sound' | 'follows', value: string): void =>
  void (said[sign] = said[sign] === value ? '' : value)
function toLikely(): void {
  const heading = document.getElementById('likely')
  heading?.scrollIntoView({ block: 'start' })
  heading?.focus({ preventScroll: true })
}
/** The machine and what hangs on it, each with the stations where something shows. */
const drawn = computed(() =>
  (found.value?.drawn ?? []).map((one) => ({
    ...one,
    names: Object.fromEntries(one.stations.map((station) => [station.key, station.name])),
  })),
)
const running = computed(() => found.value?.traces.filter((one) => !one.ended_at && !one.taken_back) ?? [])
const past = computed(() => found.value?.traces.filter((one) => one.ended_at || one.taken_back) ?? [])
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <header class="tools">
      <h1 class="grow">{{ found ? `${found.machine.name}: what is wrong?` : 'Faults' }}</h1>
      <RouterLink :to="{ name: 'own-symptoms', params: { id } }">What may be wrong</RouterLink>
      <RouterLink :to="{ name: 'recordings', params: { id } }">Record how it shakes</RouterLink>
    </header>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <template v-if="found">
      <ul v-if="running.length" class="card listed" aria-label="Under way">
        <li v-for="one in running" :key="one.uuid">
          <span class="grow"
            ><b>{{ one.symptom }}</b
            ><small class="quiet">{{ [one.words, date(one.begun_at), one.by].filter(Boolean).join(', ') }}</small></span
          >
          <RouterLink :to="{ name: 'trace', params: { id, trace: one.uuid } }">Go on</RouterLink>
        </li>
      </ul>
      <div class="halves">
        <div>
          <label class="words"
            >What do you notice?
            <InputText v-model="said.words" maxlength="300" placeholder="rumbles left, tank full" @input="note = null" />
          </label>
          <div v-if="found.notes.length" class="tools notes">
            <span class="quiet">The operator said</span>
            <button v-for="one in found.notes" :key="one.uuid" type="button" class="link" @click="take(one)">
              {{ one.text }}
            </button>
          </div>
          <div class="drawings">
            <div v-for="one in drawn" :key="one.family">
              <MachineDrawing
                :family="one.family"
                :stations="one.names"
                :chosen="said.station"
                @choose="(station) => toggle('station', station)"
              />
              <div class="tools places" role="group" :aria-label="drawn.length > 1 ? `Where, ${one.of}` : 'Where'">
                <button
                  v-for="(name, key) in one.names"
                  :key="key"
                  type="button"
                  class="toggle"
                  :aria-pressed="said.station === key"
                  @click="toggle('station', String(key))"
                >
                  {{ name }}
                </button>
              </div>
            </div>
          </div>
          <div v-for="(values, sign) in SIGNS_OF" :key="sign" class="sign" role="group" :aria-label="values.name">
            <span>{{ values.name }}</span>
            <div class="tools">
              <button
                v-for="(name, key) in values.of"
                :key="key"
                type="button"
                class="toggle"
                :aria-pressed="said[sign] === key"
                @click="toggle(sign, String(key))"
              >
                {{ name }}
              </button>
            </div>
          </div>
        </div>
        <section class="card" aria-labelledby="likely">
          <h2 id="likely" tabindex="-1">{{ anything ? 'What it sounds like' : 'What there is' }}</h2>
          <p v-if="!found.symptoms.length" class="quiet">
            No symptom is about that. Say it in other words, or take away a sign.
          </p>
          <ol class="listed">
            <li v-for="(one, i) in found.symptoms" :key="one.key">
              <span class="grow"
                ><b>{{ one.name }}</b
                ><small class="quiet"
                  >{{ one.of === found.machine.name ? '' : `${one.of}. ` }}{{ counted(one.causes, 'cause')
                  }}{{ one.hits.length ? `; found by ${one.hits.join(', ')}` : `; also: ${one.also.join(', ')}` }}</small
                ></span
              >
              <Button
                v-if="found.may_trace"
                :severity="anything && i === 0 ? undefined : 'secondary'"
                label="Trace it"
                :aria-label="`Trace it: ${one.name}`"
                :disabled="at.busy"
                @click="begin(one.key)"
              />
            </li>
          </ol>
        </section>
      </div>
      <a v-if="anything && found.symptoms.length" href="#likely" class="down" @click.prevent="toLikely"
        >{{ counted(found.symptoms.length, 'symptom') }}, first: {{ found.symptoms[0]!.name }}</a
      >
      <SwapBegin
        v-if="found.swap_slots.length && found.may_trace"
        :id="id"
        :machine="found.machine.name"
        :rows="found.machine.rows ?? 0"
        :slots="found.swap_slots"
      />
      <section v-if="found.swaps.length" class="card" aria-labelledby="swaps">
        <h2 id="swaps">Swap tests</h2>
        <ul class="listed">
          <li v-for="one in found.swaps" :key="one.uuid">
            <span class="grow"
              ><b>Rows {{ one.rows.join(' and ') }}</b
              ><small class="quiet">{{ date(one.begun_at) }}, {{ one.by }}</small></span
            >
            <span>{{ one.ended_at ? one.words : 'under way' }}</span>
            <RouterLink :to="{ name: 'swap-test', params: { id, test: one.uuid } }">{{
              one.ended_at ? 'Look' : 'Go on'
            }}</RouterLink>
          </li>
        </ul>
      </section>
      <section v-if="past.length" class="card" aria-labelledby="past">
        <h2 id="past">Traced before</h2>
        <ul class="listed">
          <li v-for="one in past" :key="one.uuid" :class="{ gone: one.taken_back }">
            <span class="grow"
              ><b>{{ one.symptom }}</b
              ><small class="quiet">{{ date(one.begun_at) }}, {{ one.by }}{{ one.words ? `: ${one.words}` : '' }}</small></span
            >
            <span>{{ one.taken_back ? 'taken back' : [OUTCOMES[one.outcome], one.was].filter(Boolean).join(': ') }}</span>
            <RouterLink :to="{ name: 'trace', params: { id, trace: one.uuid } }">Look</RouterLink>
          </li>
        </ul>
      </section>
    </template>
  </section>
</template>

<style scoped>
.words {
  display: block;
  font-weight: 600;
  font-size: 1.15rem;
}
.words :deep(input) {
  display: block;
  width: 100%;
  font-size: 1.15rem;
  min-height: 56px;
  margin-top: 6px;
}
.notes {
  margin: 6px 0;
}
.notes button {
  text-align: left;
}
.halves {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 16px 24px;
  align-items: start;
}
.drawings {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(280px, 100%), 1fr));
  gap: 12px 20px;
  margin: 10px 0 18px;
}
.down {
  display: none;
}
.places {
  margin: 0;
}
.sign {
  display: grid;
  grid-template-columns: 80px minmax(0, 1fr);
  align-items: baseline;
  gap: 8px;
  margin-bottom: 8px;
}
.gone .grow {
  text-decoration: line-through;
}
@media (max-width: 1000px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
  .down {
    display: block;
    position: sticky;
    bottom: 8px;
    padding: 12px 16px;
    border: 1px solid var(--accent);
    border-radius: var(--radius);
    background: var(--surface);
    font-weight: 600;
  }
}
</style>
