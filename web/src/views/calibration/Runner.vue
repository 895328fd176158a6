<script setup lang="ts">
/** One calibration, step by step, in the cab: what must hold, each step with what to watch, whether it worked, whether it is saved.
 * Where one is stays in the browser until something has come of it. */
import { computed, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { answer, api } from '@/api/client'
import { typedAt } from '@/api/clock'
import { newUuid } from '@/api/uuid'
import { useAttempt } from '@/app/useAttempt'
import { useDraft } from '@/app/useDraft'
import { useOnward } from '@/app/useOnward'
import { useSession } from '@/app/session'
import type { Subject } from '@/views/bench/address'
import HoldTimer from './HoldTimer.vue'
import WorkedOut from './WorkedOut.vue'
import { begunRun, conditions, done, figures, where, type Outcome } from './run'
import { useCalibrations } from './useCalibrations'

const props = defineProps<{ id: string; calibration: string }>()
const onward = useOnward()
const session = useSession()
const { found, at, keep } = useCalibrations(Number(props.id))
const one = computed(() => found.value?.calibrations.find((row) => row.key === props.calibration))
const { draft, forget } = useDraft(
  `lumvek:calibration:${session.me?.id}:${props.id}:${props.calibration}`,
  () => begunRun(newUuid()),
  (kept) => kept.stage > 0,
)
const here = computed(() => (one.value ? where(one.value, draft) : null))
const asks = ref(false)
const why = ref('')
const subjects = shallowRef<Subject[]>([])
const bench = useAttempt('What works the figure out could not be read.')
onMounted(() => bench.read(async () => void (subjects.value = await answer(api.GET('/api/bench')))))
/** What works its figure out. */
const worked = computed(() => subjects.value.find((subject) => subject.key === one.value?.bench))
const wrong = computed(() => (at.field.startsWith('values.') ? at.field.slice(7) : ''))
const all = computed(() => !!one.value && conditions(one.value).every((line) => draft.held.includes(line)))
function hold(line: string): void {
  draft.held = draft.held.includes(line) ? draft.held.filter((other) => other !== line) : [...draft.held, line]
}
function go(by: number): void {
  if (!one.value) return
  if (draft.stage === 0 && by > 0) draft.begun = typedAt()
  draft.stage = Math.max(0, draft.stage + by)
}
async function end(outcome: Outcome): Promise<void> {
  const now = one.value!
  const run = {
    uuid: draft.uuid,
    key: now.key,
    outcome,
    begun_at: draft.begun || typedAt(),
    at: typedAt(),
    steps: done(now, draft),
    values: outcome === 'saved' ? figures(draft) : {},
    units: session.me?.units ?? null,
    given: now.bench && outcome === 'saved' ? draft.given : {},
    words: why.value,
  }
  if (await keep(run, now.name)) {
    forget()
    await onward({ name: 'calibrations', params: { id: props.id } })
  }
}
/** Enter goes on, and Escape asks whether to abort; never where something is typed or a button has it. */
function key(event: KeyboardEvent): void {
  if ((event.target as HTMLElement).closest('input, select, textarea, button, a, form')) return
  if (event.key === 'Escape') asks.value = true
  else if (event.key === 'Enter' && here.value?.at === 'step') go(1)
}
onMounted(() => window.addEventListener('keydown', key))
onBeforeUnmount(() => window.removeEventListener('keydown', key))
</script>

<template>
  <section class="desk run">
    <p><RouterLink :to="{ name: 'calibrations', params: { id } }">All calibrations</RouterLink></p>
    <header>
      <p v-if="found" class="quiet">{{ found.machine.name }}</p>
      <h1>{{ one?.name ?? 'Calibration' }}</h1>
    </header>
    <p v-if="!found && !at.problem" class="quiet" role="status">Reading the calibration …</p>
    <p v-if="!found && at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <p v-if="found && !one" class="trouble" role="alert">This machine has no such calibration as it stands.</p>
    <template v-if="found && one && here">
      <ol class="bar" aria-hidden="true">
        <li v-for="n in one.steps.length + 1" :key="n" :class="{ done: draft.stage >= n, now: draft.stage === n - 1 }" />
      </ol>
      <div v-if="here.at === 'before'" class="stage">
        <h2>Before the first step: {{ one.posture }}</h2>
        <ul v-if="one.cautions.length" class="cautions">
          <li v-for="line in one.cautions" :key="line">{{ line }}</li>
        </ul>
        <ul class="holds">
          <li v-for="line in conditions(one)" :key="line">
            <label
              ><input type="checkbox" :checked="draft.held.includes(line)" @change="hold(line)" />
              <span>{{ line }}</span></label
            >
          </li>
        </ul>
        <p v-if="one.note" class="quiet">{{ one.note }}</p>
        <div class="acts"><Button label="Begin" :disabled="!all" @click="go(1)" /></div>
      </div>
      <div v-else-if="here.at === 'step'" class="stage" aria-live="polite">
        <h2>Step {{ here.number }} of {{ one.steps.length }}</h2>
        <p class="do">{{ here.step.do }}</p>
        <p v-if="here.step.watch" class="watch">
          <svg viewBox="0 0 24 24" aria-hidden="true">
            <path d="M2 12q10-14 20 0-10 14-20 0z" />
            <circle cx="12" cy="12" r="3.5" />
          </svg>
          {{ here.step.watch }}
        </p>
        <HoldTimer v-if="here.step.hold_s" :key="draft.stage" :seconds="here.step.hold_s" />
        <div class="acts">
          <Button label="Done" @click="go(1)" />
          <Button severity="secondary" label="Back" @click="go(-1)" />
          <Button severity="secondary" label="Abort" @click="asks = true" />
        </div>
      </div>
      <div v-else-if="here.at === 'worked'" class="stage">
        <h2>Did it work?</h2>
        <p class="do">{{ one.works }}</p>
        <div v-if="one.values.length" class="kept">
          <label v-for="value in one.values" :key="value.key"
            >{{ value.name }}{{ value.unit ? `, ${value.unit}` : '' }}
            <InputText
              v-model="draft.values[value.key]"
              :inputmode="['in', 'ft'].includes(value.unit) ? 'text' : 'decimal'"
              maxlength="30"
              :invalid="wrong === value.key"
            />
            <small v-if="value.last_words" class="quiet">last {{ value.last_words }}</small>
            <span v-if="wrong === value.key" class="trouble" role="alert">{{ at.problem }}</span></label
          >
        </div>
        <p v-if="at.problem && !wrong" class="trouble" role="alert">{{ at.problem }}</p>
        <div class="acts">
          <Button
            :label="one.save ? 'It worked' : 'It worked, keep it'"
            :disabled="at.busy"
            @click="one.save ? go(1) : end('saved')"
          />
          <Button severity="secondary" label="Back" @click="go(-1)" />
          <Button severity="secondary" label="It did not" @click="asks = true" />
        </div>
      </div>
      <div v-else class="stage">
        <h2>Is it saved on the machine?</h2>
        <p class="do">{{ one.save }}</p>
        <p v-if="wrong" class="trouble" role="alert">
          {{ one.values.find((value) => value.key === wrong)?.name }}: {{ at.problem }}
        </p>
        <p v-else-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
        <div class="acts">
          <Button label="Yes, it is saved" :disabled="at.busy" @click="end('saved')" />
          <Button severity="secondary" label="Left without saving" :disabled="at.busy" @click="end('unsaved')" />
          <Button severity="secondary" label="Back" @click="go(-1)" />
        </div>
      </div>
      <form v-if="asks" class="card field" aria-label="Abort" @submit.prevent="end('aborted')">
        <label for="why">Aborting loses it on the machine. Why?</label>
        <InputText id="why" v-focus v-model="why" maxlength="200" />
        <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
        <div class="tools">
          <Button type="submit" label="Abort it" :disabled="at.busy" />
          <button type="button" class="link" @click="asks = false">Go on</button>
        </div>
      </form>
      <p v-if="one.bench && bench.problem" class="trouble" role="alert">{{ bench.problem }}</p>
      <WorkedOut
        v-if="worked && (here.at === 'step' || here.at === 'worked')"
        v-model="draft.texts"
        class="card"
        :subject="worked"
        :calibration="one"
        :loads="found.loads"
        @take="Object.assign(draft.values, $event)"
        @given="draft.given = $event"
      />
    </template>
  </section>
</template>

<style scoped>
.run {
  max-width: 900px;
}
.bar {
  list-style: none;
  display: flex;
  gap: 6px;
  margin: 0;
  padding: 0;
}
.bar li {
  flex: 1;
  height: 8px;
  border: 1px solid var(--quiet);
  border-radius: 4px;
}
.bar li.done {
  background: var(--accent);
  border-color: var(--accent);
}
.bar li.now {
  border-width: 2px;
}
.stage {
  display: grid;
  gap: 16px;
}
.do {
  font-size: 2.2rem;
  line-height: 1.2;
  font-weight: 600;
}
.watch {
  display: flex;
  gap: 12px;
  align-items: flex-start;
  font-size: 1.6rem;
  line-height: 1.3;
}
.watch svg {
  flex: none;
  width: 34px;
  fill: none;
  stroke: var(--accent);
  stroke-width: 2;
}
.holds {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.holds label {
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 56px;
  padding: 4px 14px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--surface);
  font-size: 1.25rem;
}
.holds span::first-letter {
  text-transform: uppercase;
}
.holds input {
  width: 26px;
  height: 26px;
}
.cautions {
  border-left: 4px solid var(--due);
  padding-left: 12px;
  font-size: 1.1rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.acts :deep(.p-button) {
  min-height: 60px;
  flex: 1 1 150px;
  max-width: 300px;
  font-size: 1.15rem;
}
.kept {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-start;
  gap: 8px 20px;
}
.kept label {
  display: grid;
  gap: 2px;
}
</style>
