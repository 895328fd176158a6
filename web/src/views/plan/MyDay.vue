<script setup lang="ts">
/** What one person does next: the job at hand large, with machine, place, posture, tools, parts and cautions; begun, stopped and done
 * with one key each. */
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { answer, api, type Schemas } from '@/api/client'
import { answeredOrKept, useOnItsWay } from '@/api/useOnItsWay'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { typedAt } from '@/api/clock'
import NotTaken from '@/app/NotTaken.vue'
import ReadyLine from '@/app/ReadyLine.vue'
import { useReadiness } from '@/app/useReadiness'
import { useAttempt } from '@/app/useAttempt'
import { useOnward } from '@/app/useOnward'
import { useSession } from '@/app/session'
import WholeNumber from '@/app/WholeNumber.vue'
import { weekday, when } from '@/app/words'
import OwnCalendar from './OwnCalendar.vue'
import PlanTabs from './PlanTabs.vue'
import { span } from '@/app/duration'
import { type Job } from './planned'
import { useUnderWay } from './useUnderWay'

const session = useSession()
const season = ref<Schemas['SeasonWorkOut'] | null>(null)
const at = useAttempt('That could not be sent.')
const post = usePost()
const who = ref('')
const asks = ref<'' | 'cannot' | 'done'>('')
const reason = ref('')
const from = ref('')
const minutes = ref<number | null>(null)
onMounted(() =>
  at.run(async () => {
    season.value = await answer(api.GET('/api/season'))
    const mine = season.value.plan?.people.find((one) => one.member === session.me?.id)
    who.value = mine?.name ?? season.value.plan?.people[0]?.name ?? ''
  }),
)
useUnderWay(season)
const { ready, ask } = useReadiness()
watch(season, () => ask())
/** s begins and stops, d is done, c cannot: one key each, unless something is being typed. */
function key(event: KeyboardEvent): void {
  const typing = (event.target as HTMLElement).closest('input, select, textarea, form')
  if (typing || event.ctrlKey || event.altKey || event.metaKey || !next.value || !season.value?.may_work || at.busy) return
  if (event.key === 's') void (next.value.begun_by ? mark(next.value, 'stop') : start(next.value))
  else if (event.key === 'd') asks.value = 'done'
  else if (event.key === 'c') asks.value = 'cannot'
  else return
  event.preventDefault()
}
onMounted(() => window.addEventListener('keydown', key))
onBeforeUnmount(() => window.removeEventListener('keydown', key))
const MARKS = '/api/season/marks'
const { waiting, notTaken } = useOnItsWay(
  MARKS,
  (answer) => void (season.value = answer),
  ({ body }) => body.kind !== 'pin',
)
/** With what was said of them and cannot reach the server now. */
const jobs = computed<(Job & { laidAside?: boolean })[]>(() =>
  (season.value?.plan?.jobs ?? []).map((job) => {
    const mark = waiting.value.filter((one) => one.key === job.key).at(-1)
    if (!mark) return job
    const begun = mark.kind === 'start' ? (session.me?.name ?? '') : ''
    return { ...job, begun_by: begun, done: job.done || mark.kind === 'done', laidAside: mark.kind === 'cannot' }
  }),
)
const mine = computed(() =>
  jobs.value
    .filter((job) => job.stretches.length && !job.done && !job.laidAside && job.technicians.includes(who.value))
    .sort((a, b) => Number(!a.begun_by) - Number(!b.begun_by) || (a.stretches[0]!.start < b.stretches[0]!.start ? -1 : 1)),
)
const next = computed(() => mine.value[0])
const later = computed(() => mine.value.slice(1))
const done = computed(() => jobs.value.filter((job) => job.done && job.technicians.includes(who.value)))
const laidAside = computed(() => jobs.value.filter((job) => job.laidAside && job.technicians.includes(who.value)))

function mark(job: Job, kind: Schemas['JobMarkIn']['kind'], more: Partial<Schemas['JobMarkIn']> = {}): Promise<boolean> {
  return at.run(async () => {
    const body = { uuid: newUuid(), key: job.key, kind, at: typedAt(), ...more }
    const about = { what: `${job.machine}: ${job.name}`, shown: more.reason }
    await answeredOrKept(body.uuid, post(MARKS, undefined, body as never, about))
    asks.value = ''
    reason.value = from.value = ''
    minutes.value = null
  })
}
/** A walk-around is begun where it is made: in the one under way, at its next place; where none is, on the machine's page. */
const onward = useOnward()
async function start(job: Job): Promise<void> {
  if (!(await mark(job, 'start')) || job.kind !== 'look') return
  const params = { path: { machine_id: job.machine_id } }
  const found = await answer(api.GET('/api/machines/{machine_id}/start', { params })).catch(() => undefined)
  if (!found) return // without a signal the day goes on here
  const there = found.running[0]
  await onward(there ? { name: 'walk-around', params: { id: there.id } } : { name: 'machine', params: { id: job.machine_id } })
}
const finish = (job: Job): Promise<boolean> => mark(job, 'done', minutes.value === null ? {} : { minutes: minutes.value })
const cannot = (job: Job): Promise<boolean> => mark(job, 'cannot', { reason: reason.value, not_before: from.value || null })
</script>

<template>
  <PlanTabs />
  <section class="desk">
    <header class="tools">
      <h1 class="grow">{{ who ? `${who}: what is next` : 'My day' }}</h1>
      <label v-if="(season?.plan?.people.length ?? 0) > 1"
        >For
        <select v-model="who">
          <option v-for="one in season!.plan!.people" :key="one.name">{{ one.name }}</option>
        </select></label
      >
    </header>
    <p v-if="at.problem && !asks" class="trouble" role="alert">{{ at.problem }}</p>
    <NotTaken :entries="notTaken" />
    <p v-if="season?.under_way" class="quiet" role="status">The season is being planned anew …</p>
    <p v-if="season && !season.plan" class="quiet">There is no plan yet.</p>
    <p v-else-if="season && !next" class="quiet">Nothing is left in the plan.</p>
    <article v-if="next" class="card next" :class="{ begun: next.begun_by }">
      <p class="when">
        {{ next.begun_by ? `Under way, begun by ${next.begun_by}` : when(next.stretches[0]!.start) }} · {{ span(next.minutes) }}
      </p>
      <h2>
        <RouterLink :to="{ name: 'machine', params: { id: next.machine_id } }">{{ next.machine }}</RouterLink>
      </h2>
      <p class="what">{{ next.name }}</p>
      <p v-if="next.pin_trouble" class="trouble">It is {{ next.pin_trouble }}.</p>
      <ReadyLine v-if="ready.get(next.machine_id)" :ready="ready.get(next.machine_id)!" brief />
      <dl>
        <dt>Where</dt>
        <dd>{{ next.place || 'at the bench' }}</dd>
        <template v-if="next.posture"
          ><dt>Posture</dt>
          <dd>{{ next.posture }}</dd></template
        >
        <template v-if="next.technicians.length > 1"
          ><dt>With</dt>
          <dd>{{ next.technicians.filter((one) => one !== who).join(', ') }}</dd></template
        >
        <template v-if="next.parts.length"
          ><dt>Parts</dt>
          <dd>
            <span v-for="one in next.parts" :key="one.id">{{ one.words }}{{ one.bin ? `, bin ${one.bin}` : '' }}</span>
          </dd></template
        >
        <template v-if="next.tools.length"
          ><dt>Tools</dt>
          <dd>{{ next.tools.join(', ') }}</dd></template
        >
      </dl>
      <ul v-if="next.cautions.length" class="cautions" aria-label="Cautions">
        <li v-for="one in next.cautions" :key="one">{{ one }}</li>
      </ul>
      <form v-if="asks === 'cannot'" class="field" @submit.prevent="cannot(next)">
        <label for="reason">Why it cannot be done</label>
        <InputText id="reason" v-focus v-model="reason" maxlength="200" required :invalid="at.field === 'reason'" />
        <label>Not before <input v-model="from" type="date" /></label>
        <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
        <div class="tools">
          <Button type="submit" label="Say so" :disabled="at.busy" /><button type="button" class="link" @click="asks = ''">
            Leave it
          </button>
        </div>
      </form>
      <form v-else-if="asks === 'done'" class="field" @submit.prevent="finish(next)">
        <label for="minutes">Minutes it took{{ next.begun_by ? ' (empty: as it was timed)' : ', if you know' }}</label>
        <WholeNumber id="minutes" v-focus v-model="minutes" optional :invalid="at.field === 'minutes'" />
        <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
        <div class="tools">
          <Button type="submit" label="Done" :disabled="at.busy" /><button type="button" class="link" @click="asks = ''">
            Leave it
          </button>
        </div>
      </form>
      <div v-else-if="season?.may_work" class="tools acts">
        <Button v-if="!next.begun_by" label="Start" :disabled="at.busy" @click="start(next)" />
        <Button v-else severity="secondary" label="Stop for now" :disabled="at.busy" @click="mark(next, 'stop')" />
        <Button :severity="next.begun_by ? undefined : 'secondary'" label="Done" :disabled="at.busy" @click="asks = 'done'" />
        <Button severity="secondary" label="Cannot, because" :disabled="at.busy" @click="asks = 'cannot'" />
      </div>
      <p v-if="!asks && season?.may_work" class="quiet keys">
        <kbd>s</kbd> start or stop, <kbd>d</kbd> done, <kbd>c</kbd> cannot
      </p>
    </article>
    <section v-if="later.length" aria-labelledby="then">
      <h2 id="then">Then</h2>
      <ul class="then">
        <li v-for="one in later" :key="one.key">
          <span>{{ when(one.stretches[0]!.start) }}</span><span class="grow"
            ><b>{{ one.machine }}</b> {{ one.name
            }}<small
              >{{ span(one.minutes) }}, {{ one.place || 'bench' }}{{ one.pin_trouble ? `, ${one.pin_trouble}` : '' }}</small
            ></span
          >
        </li>
      </ul>
    </section>
    <p v-if="done.length" class="quiet">
      Done since {{ weekday(season!.plan!.now) }}: {{ done.map((one) => `${one.machine}: ${one.name}`).join('; ') }}.
    </p>
    <p v-if="laidAside.length" class="quiet" role="status">
      Cannot be done, on its way to the server: {{ laidAside.map((one) => `${one.machine}: ${one.name}`).join('; ') }}.
    </p>
    <OwnCalendar v-if="season?.plan && session.may('work by the plan')" />
  </section>
</template>

<style scoped>
@media (pointer: coarse) {
  .keys {
    display: none;
  }
}
.next {
  border-left: 6px solid var(--accent);
}
.next h2 {
  font-size: 1.6rem;
  line-height: 1.15;
}
.next h2 a {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
}
.what {
  font-size: 1.25rem;
  line-height: 1.25;
}
.when {
  font-weight: 600;
  color: var(--quiet);
}
.begun .when {
  color: var(--accent);
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 4px 14px;
  margin: 4px 0;
}
dt {
  color: var(--quiet);
  font-weight: 600;
}
dd {
  margin: 0;
}
dd span {
  display: block;
}
.cautions {
  border-left: 4px solid var(--due);
  padding-left: 12px;
}
.acts .p-button {
  min-height: 56px;
  flex: 1 1 120px;
  max-width: 240px;
}
.then li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  padding: 8px 0;
  border-top: 1px solid var(--line);
}
.then span:first-child {
  min-width: 160px;
}
.then .grow {
  flex: 1 1 260px;
}
small {
  display: block;
  color: var(--quiet);
}
</style>
