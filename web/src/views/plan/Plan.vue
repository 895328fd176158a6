<script setup lang="ts">
/** The season's plan: who does what, where and when; which machine will not be ready, why, and what would cure it. */
import { computed, ref, watch } from 'vue'
import Button from '@/design/controls/button'
import SelectButton from '@/design/controls/selectbutton'
import AskOnce from '@/app/AskOnce.vue'
import { counted } from '@/app/counted'
import { useReadiness, type Ready } from '@/app/useReadiness'
import { moment, weekday } from '@/app/words'
import AddJob from './AddJob.vue'
import JobPanel from './JobPanel.vue'
import LaterMachines from './LaterMachines.vue'
import PlanDrawing from './PlanDrawing.vue'
import Solving from './Solving.vue'
import TryOut from './TryOut.vue'
import PlanTabs from './PlanTabs.vue'
import type { Zoom } from './axis'
import { worstFirst, type Machine, type Rows } from './planned'
import { usePlan } from './usePlan'

const {
  season,
  plan,
  tried,
  told,
  working,
  put,
  last,
  at,
  busy,
  unheard,
  sending,
  earlier,
  listing,
  look,
  again,
  anew,
  first,
  tryOut,
  enough,
  workBy,
  move,
  typed,
  letGo,
  takeBack,
  takeBackJob,
} = usePlan()
const BY: { label: string; value: Rows }[] = [
  { label: 'People', value: 'people' },
  { label: 'Places', value: 'places' },
  { label: 'Machines', value: 'machines' },
]
const ZOOM: { label: string; value: Zoom }[] = [
  { label: 'Day', value: 'day' },
  { label: 'Week', value: 'week' },
  { label: 'Season', value: 'season' },
]
const by = ref<Rows>('people')
const zoom = ref<Zoom>('week')
const picked = ref('')
/** A typed job that is being changed. */
const edits = ref('')
const job = computed(() => plan.value?.jobs.find((one) => one.key === picked.value))
const late = computed(() => worstFirst(plan.value?.machines ?? []).filter((one) => one.words))
const { ready, ask } = useReadiness()
watch(
  () => [plan.value?.uuid, plan.value?.jobs.filter((one) => one.done).length],
  () => plan.value && ask({ plan: plan.value.uuid }),
)
/** How many machines stand how, by the judgement that the board shows too; what has no date is never in time. */
const sums = computed(() => {
  const all = [...ready.value.values()]
  const open = all.filter((one) => one.state === 'ready_after')
  const sum = (words: string, list: Ready[]): { many: number; words: string } => ({ many: list.length, words })
  return [
    sum(
      'not fit to run',
      all.filter((one) => one.state === 'not_fit'),
    ),
    sum(
      'looked at too little',
      all.filter((one) => one.state === 'not_known' || one.state === 'not_looked_at'),
    ),
    sum(
      'late',
      open.filter((one) => one.late_days),
    ),
    sum(
      'without a day yet',
      open.filter((one) => !one.late_days && !one.ready_on && !one.if_ordered),
    ),
    sum(
      'in time',
      open.filter((one) => one.late_days === 0),
    ),
    sum(
      'with no date to be ready by',
      open.filter((one) => one.late_days === null && (one.ready_on || one.if_ordered)),
    ),
    sum(
      'ready',
      all.filter((one) => one.state === 'ready'),
    ),
  ].filter((one) => one.many)
})
const without = computed(() => plan.value?.jobs.filter((one) => one.without && !one.done) ?? [])
const taken = computed(() => season.value?.plan ?? null)
/** What trying something out would change for each machine, in hours. */
const gains = computed(() => {
  if (!tried.value || !taken.value) return []
  const before = new Map(taken.value.machines.map((one) => [one.name, one]))
  return tried.value.machines
    .map((now) => ({ now, was: before.get(now.name) }))
    .filter(({ now, was }) => was && (was.late_h !== now.late_h || was.ready !== now.ready))
})
function cure(machine: Machine): void {
  const fix = machine.fixes[0]!
  const what = fix.kind === 'rush_part' ? { rush: fix.what } : fix.kind === 'one_day' ? { day: fix.what } : { hand: true }
  void tryOut(what)
}
</script>

<template>
  <PlanTabs />
  <section class="desk">
    <header class="tools">
      <div class="grow">
        <h1>Work plan</h1>
        <p v-if="taken" class="quiet">Made by {{ taken.by }}, {{ moment(taken.at) }}; planned from {{ weekday(taken.now) }}</p>
      </div>
      <AskOnce
        v-if="season?.may_plan && taken"
        label="Plan anew"
        severity="secondary"
        question="Everything that is not set by hand may move, to other days and people."
        yes="Plan anew"
        :disabled="busy"
        @yes="anew"
      />
      <Button
        v-if="season?.may_plan"
        :label="taken ? 'Plan again' : 'Plan the season'"
        :severity="taken && !season.stale.length ? 'secondary' : undefined"
        :disabled="busy"
        @click="again"
      />
    </header>
    <p v-if="at.problem || sending" class="trouble" role="alert">{{ at.problem || sending }}</p>
    <Solving v-if="working" :told="told" @enough="enough" />
    <p v-if="season && !plan && !working" class="quiet">No plan yet.</p>
    <p v-if="season?.under_way && !working" class="quiet" role="status">A plan is being worked out …</p>
    <div v-if="season?.stale.length && !working && !season.under_way" class="note" role="alert">
      <b>Since the plan was made:</b> {{ season.stale.join('; ') }}. Plan again.
    </div>
    <div v-if="tried" class="note" role="status">
      <span class="grow"
        ><b>{{ tried.words ? `Tried out: ${tried.words}.` : `The plan of ${moment(tried.at)}.` }}</b>
        <template v-if="!gains.length"> It would change nothing.</template>
        <template v-for="{ now, was } in gains" :key="now.name">
          {{ now.name }}: {{ was!.ready ? weekday(was!.ready) : 'not ready' }} →
          {{ now.ready ? weekday(now.ready) : 'not ready'
          }}{{ now.late_h < was!.late_h ? (now.late_h ? ', less late' : ', in time') : '' }}.
        </template></span
      >
      <Button v-if="season?.may_plan && !tried.words" label="Work by this one" :disabled="busy" @click="workBy(tried)" />
      <Button severity="secondary" label="Back to the plan" @click="tried = null" />
    </div>
    <div v-else-if="last || plan?.moved.length" class="note" role="status">
      <span class="grow"
        ><template v-if="plan?.moved.length"
          ><b>{{ counted(plan.moved.length, 'job') }} moved:</b> {{ plan.moved.slice(0, 4).join('; ')
          }}{{ plan.moved.length > 4 ? ` and ${plan.moved.length - 4} more` : '' }}.</template
        ><template v-else>Nothing else had to move.</template></span
      >
      <Button
        v-if="last"
        severity="secondary"
        :label="`Take back moving ${last.name}`"
        :disabled="unheard > 0"
        @click="takeBack"
      />
    </div>
    <template v-if="plan">
      <ul v-if="late.length" class="late" aria-label="Machines that will not be ready">
        <li v-for="one in late" :key="one.name">
          <svg viewBox="0 0 20 20" aria-hidden="true"><path d="m10 1 9 9-9 9-9-9z" /></svg>
          <span class="grow"
            ><b>{{ one.name }}</b> {{ one.words }}</span
          >
          <button
            v-if="one.fixes.length && season?.may_plan && !tried"
            type="button"
            class="link"
            :disabled="busy"
            @click="cure(one)"
          >
            Try it
          </button>
        </li>
      </ul>
      <p v-if="sums.length" class="sums">
        <span v-for="one in sums" :key="one.words"
          ><b>{{ one.many }}</b> {{ one.words }}</span
        >
      </p>
      <div class="tools">
        <SelectButton
          v-model="by"
          :options="BY"
          option-label="label"
          option-value="value"
          :allow-empty="false"
          aria-label="Rows"
        />
        <SelectButton
          v-model="zoom"
          :options="ZOOM"
          option-label="label"
          option-value="value"
          :allow-empty="false"
          aria-label="Zoom"
        />
        <label v-if="earlier.length > 1"
          >Compare with
          <select :value="tried?.uuid ?? ''" :disabled="busy" @change="look(($event.target as HTMLSelectElement).value)">
            <option value="">nothing</option>
            <option v-for="one in earlier.filter((one) => one.uuid !== taken?.uuid)" :key="one.uuid" :value="one.uuid">
              {{ moment(one.at) }}{{ one.words ? `: ${one.words}` : '' }}
            </option>
          </select></label
        >
        <span v-if="listing.problem" class="trouble" role="alert">Earlier plans: {{ listing.problem }}</span>
        <ul class="key quiet" aria-label="What the marks mean">
          <li><i class="pin" />set by hand</li>
          <li><i class="behind" />late</li>
          <li v-if="plan.jobs.some((one) => one.pin_trouble)"><i class="pin amiss" />set where it cannot be done</li>
          <li v-if="by === 'machines'"><i class="turn" />posture</li>
          <li v-if="by === 'machines'"><i class="part" />part comes</li>
          <li v-if="by === 'machines'"><i class="flag" />wanted by</li>
        </ul>
      </div>
      <PlanDrawing
        :plan="plan"
        :by="by"
        :ready="ready"
        :zoom="zoom"
        :picked="picked"
        :put="put"
        :moves="!!season?.may_plan && !tried"
        @pick="picked = $event"
        @move="move"
      />
      <div class="columns">
        <JobPanel
          v-if="job"
          :plan="plan"
          :job="job"
          :moves="!!season?.may_plan && !tried"
          :busy="false"
          @move="move"
          @let-go="letGo"
          @take-back="takeBackJob"
          @change="edits = $event.key.split(':').at(-1)!"
          @close="picked = ''"
        />
        <section v-if="without.length" class="card" aria-labelledby="without">
          <h2 id="without">No place in the plan</h2>
          <ul>
            <li v-for="one in without" :key="one.key">
              <button type="button" class="link" @click="picked = one.key">{{ one.machine }}: {{ one.name }}</button>
              <small>{{ one.without }}</small>
            </li>
          </ul>
        </section>
      </div>
      <LaterMachines :plan="plan" :moves="!!season?.may_plan && !tried" :busy="busy" @first="first" />
      <p v-if="taken && !tried" class="tools outs" aria-label="To take along">
        <a href="/plan/sheet" target="_blank" rel="noopener">Day sheets</a>
        <a href="/plan/sheet?days=7" target="_blank" rel="noopener">Week sheets</a>
        <a href="/plan.csv">As CSV</a>
        <a href="/plan.xlsx">As XLSX</a>
      </p>
      <AddJob v-if="season?.may_plan && !tried" :edits="edits" @added="typed" @left="edits = ''" />
      <TryOut v-if="season?.may_plan && !tried" :plan="plan" :busy="busy" @try="tryOut" />
    </template>
  </section>
</template>

<style scoped src="./Plan.css"></style>
