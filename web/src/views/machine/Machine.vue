<script setup lang="ts">
/** Before a walk-around: what the operator noticed, which time of the season, which headers, who; and what that will be. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api, Refused, write, type Schemas } from '@/api/client'
import { keptAnswer, takeAlong } from '@/api/kept'
import { outbox } from '@/api/outbox'
import { StorageFull } from '@/api/storage'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import AskOnce from '@/app/AskOnce.vue'
import ReadyLine from '@/app/ReadyLine.vue'
import { useReadiness } from '@/app/useReadiness'
import { useOnward } from '@/app/useOnward'
import { counted } from '@/app/counted'
import { useSession } from '@/app/session'
import { date, phaseName, upper } from '@/app/words'
import Counters from '@/views/logbook/Counters.vue'
import { beforehandOf, beginHere, CROPS, type Beforehand, type Start } from './beginning'
import BeginWalk from './BeginWalk.vue'
import BenchLog from './BenchLog.vue'
import MachineTabs from './MachineTabs.vue'

const props = defineProps<{ id: string }>()
const onward = useOnward()
const route = useRoute()
const session = useSession()
const path = { params: { path: { machine_id: Number(props.id) } } }
const info = ref<Schemas['StartInfoOut'] | null>(null)
const preview = ref<Schemas['PreviewOut'] | null>(null)
const problem = ref('')
const ANSWER_WITHIN_MS = 8000
/** Made once, so that pressing twice starts one walk-around. */
const uuid = newUuid()
const chosen = reactive({
  phase: '' as Start['phase'] | '',
  crop: '' as Start['crop'],
  headers: [] as number[],
  people: [] as number[],
  takeIn: false,
  why: '',
})
const mayStart = computed(() => session.may('start a walk-around'))
/** What the shop grows of a group. */
const grown = (group: string): string => info.value?.crops[group]?.join(', ') ?? ''
const card = computed(
  () =>
    `/machines/${props.id}/card?${new URLSearchParams([['phase', chosen.phase], ...chosen.headers.map((one) => ['headers', String(one)])])}`,
)

async function load(): Promise<void> {
  problem.value = ''
  try {
    const found = await answer(api.GET('/api/machines/{machine_id}/start', path))
    info.value = found
    const asked = found.phases.find((phase) => phase.key === route.query.phase)
    if (!chosen.phase && asked) chosen.phase = asked.key
    else if (!chosen.phase)
      chosen.phase = (found.phases.find((phase) => phase.key === found.usual) ?? found.phases[0])?.key ?? 'winter'
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'The machine could not be read.'
  }
}
onMounted(load)
const { ready, ask } = useReadiness()
onMounted(() => ask({ machine: Number(props.id) }))

const wanted = (): Start => ({
  id: uuid,
  phase: chosen.phase || 'winter',
  crop: chosen.crop,
  headers: [...chosen.headers],
  people: [...chosen.people],
  take_in: chosen.takeIn,
  then_crop: '',
  why: chosen.why,
})
const address = (): string => beforehandOf(Number(props.id), wanted(), info.value?.usual)
let asked = 0
watch(
  () => [chosen.phase, chosen.crop, chosen.headers.join(), chosen.takeIn],
  async () => {
    if (!chosen.phase || !mayStart.value) return
    const mine = ++asked
    try {
      const found = await write(() => api.POST('/api/machines/{machine_id}/preview', { ...path, body: wanted() }))
      if (mine === asked) [preview.value, problem.value] = [found, '']
      void takeAlong([address()])
    } catch (error) {
      const kept = error instanceof Refused && error.passing ? await keptAnswer<Beforehand>(address()) : undefined
      const said = error instanceof Refused ? error.message : 'It could not be planned.'
      if (mine === asked) [preview.value, problem.value] = [kept?.preview ?? null, kept ? '' : said]
    }
  },
)

function toggle(list: number[], one: number): void {
  const index = list.indexOf(one)
  if (index < 0) list.push(one)
  else list.splice(index, 1)
}

async function begin(): Promise<void> {
  const signal = AbortSignal.timeout(ANSWER_WITHIN_MS)
  try {
    await write(() => api.POST('/api/machines/{machine_id}/walk-arounds', { ...path, body: wanted(), signal }))
  } catch (error) {
    const away = error instanceof Refused && (!error.ours || error.status === 503)
    if (!away || !info.value || !(await beginHere(info.value.machine, wanted(), address()))) throw error
  }
}
const starting = ref(false)
async function start(why: string): Promise<void> {
  if (starting.value) return
  starting.value = true
  chosen.why = why
  try {
    await begin()
    await onward({ name: 'walk-around', params: { id: uuid } })
  } catch (error) {
    const known = error instanceof Refused || error instanceof StorageFull
    problem.value = known ? error.message : 'The walk-around could not be started.'
  } finally {
    starting.value = false
  }
}

const post = usePost()
const note = reactive({ text: '', uuid: newUuid(), problem: '' })
async function keepNote(): Promise<void> {
  try {
    const notes = await post(
      '/api/machines/{machine_id}/notes',
      { machine_id: Number(props.id) },
      { uuid: note.uuid, text: note.text, station: '' },
      { what: 'Operator’s note', shown: note.text, machine: info.value?.machine.name },
    )
    if (info.value) info.value.notes = notes
    Object.assign(note, { text: '', uuid: newUuid(), problem: '' })
  } catch (error) {
    note.problem = error instanceof Refused ? error.message : 'It could not be saved.'
  }
}
async function takeBack(written: string): Promise<void> {
  try {
    const notes = await post(
      '/api/machines/{machine_id}/notes/{note_id}/take-back',
      { machine_id: Number(props.id), note_id: written },
      undefined as never,
      { what: 'Note taken back' },
    )
    if (info.value) info.value.notes = notes
  } catch (error) {
    note.problem = error instanceof Refused ? error.message : 'It could not be taken back.'
  }
}
</script>

<template>
  <p v-if="!info" class="trouble" :class="{ quiet: !problem }" role="status">
    {{ problem || 'Reading the machine …' }} <Button v-if="problem" label="Try again" severity="secondary" @click="load" />
  </p>
  <template v-else>
    <MachineTabs :id="id" />
    <section class="page">
      <header>
        <h1>{{ info.machine.name }}</h1>
        <p class="quiet">
          {{ info.machine.kind }} {{ info.machine.model
          }}<template v-if="info.machine.serial">, serial {{ info.machine.serial }}</template
          ><template v-if="info.machine.hours">, {{ info.machine.hours }} h</template
          ><template v-if="info.machine.area_ha">, {{ info.machine.area_ha }} ha</template
          ><template v-if="info.machine.season_date">, needed {{ date(info.machine.season_date) }}</template>
        </p>
        <ReadyLine v-if="ready.get(info.machine.id)" :ready="ready.get(info.machine.id)!" />
      </header>
      <div class="columns">
        <div class="choose">
          <section aria-labelledby="noticed">
            <h2 id="noticed">What did the operator notice the last time it ran?</h2>
            <p v-for="one in info.notes" :key="one.uuid" class="noted">
              {{ one.text }}
              <span class="quiet"
                ><template v-if="one.station_name">{{ one.station_name }}. </template>{{ one.by }}, {{ date(one.at) }}. Open
                until its cause is found.</span
              >
              <AskOnce
                v-if="!session.onlyOwns"
                plain
                label="Take back"
                :named="`Take back the note: ${one.text}`"
                question="It comes up in walk-arounds no more; it stays in the logbook."
                yes="Take the note back"
                @yes="takeBack(one.uuid)"
              />
            </p>
            <form v-if="!session.onlyOwns" class="note" @submit.prevent="keepNote">
              <InputText
                v-model="note.text"
                maxlength="500"
                aria-label="What the operator noticed"
                placeholder="In the operator’s own words"
                :invalid="!!note.problem"
              />
              <Button type="submit" severity="secondary" label="Save" />
            </form>
            <p v-if="note.problem" class="problem" role="alert">{{ note.problem }}</p>
            <p class="quiet">
              With a picture, or for a certain station: in the
              <RouterLink :to="{ name: 'logbook', params: { id } }">logbook</RouterLink>.
            </p>
          </section>
          <BenchLog :machine="info.machine.id" />
          <template v-if="mayStart">
            <fieldset>
              <legend>When</legend>
              <label v-for="phase in info.phases" :key="phase.key" class="pick" :class="{ on: chosen.phase === phase.key }"
                ><input v-model="chosen.phase" type="radio" name="phase" :value="phase.key" /> {{ phase.name }}
                <span class="quiet">{{ phase.checks }}</span></label
              >
            </fieldset>
            <fieldset v-if="info.headers.length">
              <legend>Headers coupled or waiting to be</legend>
              <label
                v-for="header in info.headers"
                :key="header.id"
                class="pick"
                :class="{ on: chosen.headers.includes(header.id) }"
                ><input
                  type="checkbox"
                  :checked="chosen.headers.includes(header.id)"
                  @change="toggle(chosen.headers, header.id)"
                />
                {{ header.name }}
                <span class="quiet"
                  >{{ header.kind.toLowerCase() }}{{ info.own_headers.includes(header.id) ? ', goes with it' : '' }}</span
                ></label
              >
            </fieldset>
            <fieldset>
              <legend>The crop that comes</legend>
              <label v-for="crop in CROPS" :key="crop.key" class="pick" :class="{ on: chosen.crop === crop.key }"
                ><input v-model="chosen.crop" type="radio" name="crop" :value="crop.key" /> {{ crop.name
                }}<small v-if="grown(crop.key)" class="quiet">{{ grown(crop.key) }}</small></label
              >
            </fieldset>
            <fieldset>
              <legend>With you</legend>
              <label
                v-for="one in info.people.filter((person) => person.name !== session.me?.name)"
                :key="one.id"
                class="pick"
                :class="{ on: chosen.people.includes(one.id) }"
                ><input type="checkbox" :checked="chosen.people.includes(one.id)" @change="toggle(chosen.people, one.id)" />
                {{ one.name }}</label
              >
            </fieldset>
          </template>
          <section v-if="info.earlier.length" class="earlier" aria-labelledby="earlier">
            <h2 id="earlier">Walk-arounds so far</h2>
            <ul>
              <li v-for="old in info.earlier" :key="old.id">
                <a :href="`/walk-arounds/${old.id}/report`">{{ phaseName(old.phase) }}, {{ date(old.started_at) }}</a>
                <span class="quiet"> {{ old.started_by }}{{ old.finished_at ? '' : ', under way' }}</span>
              </li>
            </ul>
          </section>
          <div v-if="mayStart" class="desk"><Counters :machine="info.machine.id" :may-record="true" /></div>
        </div>
        <aside v-if="mayStart" class="plan" aria-label="What it will be">
          <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
          <template v-if="preview">
            <p class="big">
              <b>{{ counted(preview.checks, 'check') }}</b>, <b>{{ counted(preview.places, 'place') }}</b>
            </p>
            <p>
              <b>{{ Math.round(preview.plan.minutes) }} min</b> of moving the machine<template
                v-if="
                  preview.plan.minutes_station_order !== null && preview.plan.minutes_station_order - preview.plan.minutes > 0.5
                "
                >, {{ Math.round(preview.plan.minutes_station_order) }} min station by station</template
              >
            </p>
            <p v-for="one in preview.left_out" :key="one.words" class="left-out">
              {{ one.words }}
              <Button severity="secondary" label="Take them in" @click="chosen.takeIn = true" />
            </p>
            <p v-if="chosen.takeIn" class="left-out">
              Nothing is left out.
              <Button severity="secondary" label="Leave out what may be" @click="chosen.takeIn = false" />
            </p>
            <BeginWalk
              :running="info.running"
              :begun="outbox.begun.value.get(info.machine.id)"
              :starting="starting"
              @start="start"
            />
            <h2>Postures in order</h2>
            <ol>
              <li v-for="(visit, i) in preview.plan.visits" :key="i">
                <span class="num">{{ i + 1 }}</span> {{ upper(visit.posture) }}
                <span class="quiet"
                  >{{ visit.checks.length
                  }}<template v-if="visit.minutes">, {{ Math.round(visit.minutes) }} min there</template></span
                >
              </li>
            </ol>
            <h2 v-if="preview.tools.length">Tools to take</h2>
            <p>{{ preview.tools.join(', ') }}</p>
            <p><a :href="card">Print this list as a card</a></p>
          </template>
        </aside>
      </div>
    </section>
  </template>
</template>

<style scoped src="./Machine.css"></style>
