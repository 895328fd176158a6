<script setup lang="ts">
/** What to take to which machine, by posture: one press fits a part, and its wear history starts anew. */
import Button from '@/design/controls/button'
import { computed, onMounted, reactive, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import SeverityMark from '@/design/SeverityMark.vue'
import LineState from './LineState.vue'
import SupplyTabs from './SupplyTabs.vue'
import { figureIfTyped } from '@/app/figures'
import { useAttempt } from '@/app/useAttempt'
import { upper } from '@/app/words'

type Line = Schemas['NeededLine']
type Piece = Schemas['NeededPiece']
interface Job {
  key: string
  fitting: string | null
  line: Line
  pieces: Piece[]
  quantity: number
  ready: boolean
  place: 'shelf' | 'truck'
}
interface Machine {
  id: number
  name: string
  counter: number | null
  unit: string
  postures: { name: string; jobs: Job[] }[]
  done: Job[]
}

const data = ref<Schemas['NeedsOut'] | null>(null)
const at = useAttempt('The list could not be read.')
const failed = ref('')
/** The machine that a part was last pressed for. */
const fitted = ref(0)
const counters = reactive<Record<number, string>>({})
/** One for each job until it is done, so that pressing twice fits once. */
const uuids = new Map<string, string>()
onMounted(() =>
  at.read(async () => void (data.value = await answer(api.GET('/api/supply/list', { params: { query: { whole: true } } })))),
)

const machines = computed<Machine[]>(() =>
  (data.value?.machines ?? []).map((one) => {
    const postures = new Map<string, Job[]>()
    const done: Job[] = []
    for (const line of data.value!.lines) {
      const groups = new Map<string, Piece[]>()
      for (const piece of line.pieces.filter((p) => p.machine === one.id)) {
        const key = [piece.walk_around, piece.slot, piece.posture, piece.fitting ?? piece.fitted].join('|')
        groups.set(key, [...(groups.get(key) ?? []), piece])
      }
      for (const [key, pieces] of groups) {
        const quantity = pieces.reduce((sum, piece) => sum + piece.quantity, 0)
        const place = line.shelf >= quantity || line.shelf >= line.truck ? 'shelf' : 'truck'
        const job: Job = {
          key: `${key}|${line.key}`,
          fitting: pieces[0]!.fitting,
          line,
          pieces,
          quantity,
          ready: (place === 'shelf' ? line.shelf : line.truck) >= quantity,
          place,
        }
        if (pieces[0]!.fitted) done.push(job)
        else postures.set(pieces[0]!.posture, [...(postures.get(pieces[0]!.posture) ?? []), job])
      }
    }
    const ranked = [...postures].map(([name, jobs]) => ({ name, jobs: jobs.sort((a, b) => Number(b.ready) - Number(a.ready)) }))
    return { id: one.id, name: one.name, counter: one.counter, unit: one.counter_unit, postures: ranked, done }
  }),
)

/** The machine whose counter was refused. */
const wrongCounter = computed(() => (at.problem && at.field === 'counter' ? fitted.value : 0))
function fit(machine: Machine, job: Job, pieces: Piece[]): Promise<boolean> {
  const key = job.key + pieces.map((piece) => piece.position).join()
  const uuid = uuids.get(key) ?? newUuid()
  uuids.set(key, uuid)
  failed.value = job.key
  fitted.value = machine.id
  return at.run(async () => {
    const body = {
      uuid,
      walk_around: pieces[0]!.walk_around,
      slot: pieces[0]!.slot,
      positions: pieces.map((piece) => piece.position),
      counter: figureIfTyped(counters[machine.id] ?? '', 'counter'),
      place: job.place,
    }
    data.value = await write(() => api.POST('/api/supply/fit', { body }))
    uuids.delete(key) // done; taken back and fitted again is another act
  })
}
const takeOff = (job: Job): Promise<boolean> => {
  failed.value = job.key
  return at.run(async () => {
    await write(() =>
      api.POST('/api/supply/movements/{movement_id}/take-back', { params: { path: { movement_id: job.fitting! } } }),
    )
    data.value = await answer(api.GET('/api/supply/list', { params: { query: { whole: true } } }))
  })
}
const places = (pieces: Piece[]): string => pieces.map((piece) => piece.label.toLowerCase()).join(', ')
</script>

<template>
  <SupplyTabs />
  <section class="desk">
    <header class="tools">
      <div class="grow">
        <h1>Fit</h1>
        <p class="quiet">By machine and posture. What is fitted leaves the shelf, and its wear starts anew.</p>
      </div>
      <a href="/supply/pick-list">Pick list to print</a><a href="/supply/pick-list.csv">CSV</a
      ><a href="/supply/labels.pdf?for=removed">Labels for removed parts</a>
    </header>
    <p v-if="at.problem && !failed" class="trouble" role="alert">{{ at.problem }}</p>
    <article v-for="machine in machines" :key="machine.id" class="card" data-typed :aria-label="machine.name">
      <header class="tools">
        <h2 class="grow">{{ machine.name }}</h2>
        <label
          >Counter now
          <input
            v-model="counters[machine.id]"
            class="counter"
            inputmode="decimal"
            :placeholder="machine.counter === null ? '' : String(machine.counter)"
            :aria-label="`Counter of ${machine.name}`"
            :aria-invalid="wrongCounter === machine.id"
          />
          {{ machine.unit }}</label
        >
      </header>
      <p v-if="!machine.postures.length" class="quiet">Everything is fitted.</p>
      <section v-for="posture in machine.postures" :key="posture.name">
        <h3>{{ upper(posture.name) }}</h3>
        <ul>
          <li v-for="job in posture.jobs" :key="job.key" :class="{ ready: job.ready }">
            <SeverityMark :severity="job.pieces[0]!.severity as 'due'" />
            <div class="what">
              <b
                >{{ job.quantity }}{{ job.line.unit ? ' ' + job.line.unit : '' }} × {{ job.line.name
                }}<template v-if="job.line.side">, {{ job.line.side }}</template></b
              >
              <span class="quiet">{{ job.line.number }}</span>
              <p>{{ upper(places(job.pieces)) }}</p>
            </div>
            <span class="where"
              ><LineState :state="job.ready ? 'here' : job.line.state === 'here' ? 'coming' : job.line.state" /><small
                v-if="job.ready && job.line.bin"
                class="quiet"
                >{{ job.place === 'truck' ? 'on the truck' : `bin ${job.line.bin}` }}</small
              ></span
            >
            <span class="do">
              <Button
                v-if="job.ready"
                :label="job.pieces.length > 1 ? 'Fit all' : 'Fit'"
                :aria-label="`${job.pieces.length > 1 ? 'Fit all' : 'Fit'} ${job.line.name} at ${places(job.pieces)}`"
                :disabled="at.busy"
                @click="fit(machine, job, job.pieces)"
              />
              <template v-if="job.pieces.length > 1 && (job.place === 'shelf' ? job.line.shelf : job.line.truck)"
                ><Button
                  v-for="piece in job.pieces"
                  :key="piece.position"
                  size="small"
                  severity="secondary"
                  :label="piece.label"
                  :aria-label="`Fit ${job.line.name} at ${piece.label}`"
                  :disabled="at.busy"
                  @click="fit(machine, job, [piece])"
              /></template>
            </span>
            <p v-if="at.problem && failed === job.key" class="problem" role="alert">
              {{ wrongCounter ? 'Counter now: ' : '' }}{{ at.problem }}
            </p>
          </li>
        </ul>
      </section>
      <ul v-if="machine.done.length" class="done">
        <li v-for="job in machine.done" :key="job.key">
          <LineState state="fitted" />
          <span class="quiet"
            >{{ job.quantity }}{{ job.line.unit ? ' ' + job.line.unit : '' }} × {{ job.line.name
            }}<template v-if="job.line.side">, {{ job.line.side }}</template
            >, {{ places(job.pieces) }}</span
          >
          <button
            v-if="job.fitting"
            type="button"
            class="link"
            :aria-label="`Take back: ${job.line.name} fitted at ${places(job.pieces)}`"
            :disabled="at.busy"
            @click="takeOff(job)"
          >
            Take back
          </button>
          <p v-if="at.problem && failed === job.key" class="problem" role="alert">
            {{ wrongCounter ? 'Counter now: ' : '' }}{{ at.problem }}
          </p>
        </li>
      </ul>
    </article>
  </section>
</template>

<style scoped>
.counter {
  width: 110px;
  font: inherit;
  padding: 0 10px;
  text-align: right;
  background: var(--surface);
  color: var(--ink);
  border: 1px solid var(--line);
  border-radius: 6px;
}
h3 {
  color: var(--quiet);
  padding-top: 6px;
}
section li {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) 170px minmax(0, 300px);
  gap: 4px 12px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
section li:not(.ready) .what {
  color: var(--quiet);
}
.where small {
  display: block;
  padding-left: 26px;
}
.do {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  justify-content: flex-end;
}
.problem {
  grid-column: 1 / -1;
}
.done li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  min-height: var(--target);
}
@media (max-width: 700px) {
  section li {
    grid-template-columns: 22px minmax(0, 1fr);
  }
  .where,
  .do {
    grid-column: 2;
    justify-content: flex-start;
  }
  .where small {
    display: inline;
    padding-left: 6px;
  }
}
</style>
