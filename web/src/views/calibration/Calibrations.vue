<script setup lang="ts">
/** What is to be calibrated on one machine, why and in which order; what came of the earlier ones. */
import { computed, ref, watch } from 'vue'
import Button from '@/design/controls/button'
import { date, moment } from '@/app/words'
import MachineTabs from '@/views/machine/MachineTabs.vue'
import CollectedLoads from './CollectedLoads.vue'
import { LOAD_FIELDS } from './run'
import FigureLine from './FigureLine.vue'
import type { Calibration } from './run'
import { useCalibrations } from './useCalibrations'

const props = defineProps<{ id: string }>()
const { found, at, happened, collect, weigh, takeBack } = useCalibrations(Number(props.id))
const header = ref(0)
const done = ref('')
watch(
  () => found.value?.header,
  (now) => (header.value = now ?? 0),
)
const loads = ref<InstanceType<typeof CollectedLoads>>()
/** What was wrong with a load is said where it was typed. */
const ofLoads = computed(() => LOAD_FIELDS.includes(at.field))
async function take(load: Parameters<typeof collect>[0]): Promise<void> {
  if (await collect(load)) loads.value?.clear(load)
}
const due = computed(() => found.value?.calibrations.filter((one) => one.state === 'due') ?? [])
const others = computed(() => found.value?.calibrations.filter((one) => one.state !== 'due') ?? [])
const OUTCOME = { saved: 'Saved', unsaved: 'Left without saving', aborted: 'Aborted' }
/** What made it due last, and when that was. */
const whyOf = (one: Calibration): string => {
  const last = one.because[0]
  return last ? [last.words, last.at && date(last.at.slice(0, 10))].filter(Boolean).join(', ') : ''
}
async function say(): Promise<void> {
  if (await happened(done.value)) done.value = ''
}
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <header class="tools">
      <h1 class="grow">{{ found ? `${found.machine.name}: calibrations` : 'Calibrations' }}</h1>
      <form v-if="found?.headers.length" class="tools" aria-label="Header" @submit.prevent="happened('header', header || null)">
        <label
          >On it
          <select v-model="header" :disabled="!found.may_calibrate">
            <option :value="0">no header</option>
            <option v-for="one in found.headers" :key="one.id" :value="one.id">{{ one.name }}</option>
          </select></label
        >
        <Button
          v-if="found.may_calibrate && header !== (found.header ?? 0)"
          type="submit"
          severity="secondary"
          label="It was coupled"
          :disabled="at.busy"
        />
      </form>
    </header>
    <p v-if="at.problem && !ofLoads" class="trouble" role="alert">{{ at.problem }}</p>
    <p v-if="!found && !at.problem" class="quiet" role="status">Reading the calibrations …</p>
    <template v-if="found">
      <p v-if="!due.length" class="fine">Nothing is due.</p>
      <ol v-else class="due" aria-label="Due, in this order">
        <li v-for="(one, i) in due" :key="one.key" class="card">
          <span class="number" aria-hidden="true">{{ i + 1 }}</span>
          <div class="grow">
            <h2>{{ one.name }}</h2>
            <p class="quiet">
              {{ whyOf(one) }}
              <template v-if="one.because.length > 1"> and {{ one.because.length - 1 }} more</template>
            </p>
            <p v-for="first in one.first" :key="first.name">After {{ first.name.toLowerCase() }}: {{ first.because }}.</p>
          </div>
          <RouterLink
            v-if="found.may_calibrate"
            class="begin"
            :class="{ first: i === 0 }"
            :to="{ name: 'calibration', params: { id, calibration: one.key } }"
            >Begin<span class="unseen"> {{ one.name }}</span></RouterLink
          >
        </li>
      </ol>
      <form v-if="found.may_calibrate" class="tools" aria-label="Something was done" @submit.prevent="say">
        <label
          >Something was done
          <select v-model="done">
            <option value="">choose</option>
            <option v-for="one in found.happened" :key="one.key" :value="one.key">{{ one.name }}</option>
          </select></label
        >
        <Button type="submit" severity="secondary" label="Note it" :disabled="at.busy || !done" />
        <span v-for="one in found.said.slice(0, 3)" :key="one.uuid" class="quiet"
          >{{ one.words }}, {{ moment(one.at) }}
          <button type="button" class="link" @click="takeBack('happened', one.uuid)">Take back</button></span
        >
      </form>
      <div class="columns">
        <section class="card" aria-labelledby="others">
          <h2 id="others">Not due</h2>
          <ul class="rows">
            <li v-for="one in others" :key="one.key" class="tools">
              <span class="grow"
                ><b>{{ one.name }}</b
                ><small class="quiet">{{
                  one.saved_at ? `saved ${moment(one.saved_at)}, ${one.saved_by}` : 'never saved here'
                }}</small></span
              >
              <RouterLink v-if="found.may_calibrate" :to="{ name: 'calibration', params: { id, calibration: one.key } }"
                >Begin<span class="unseen"> {{ one.name }}</span></RouterLink
              >
            </li>
          </ul>
        </section>
        <section class="card" aria-labelledby="log">
          <h2 id="log">What came of them</h2>
          <p v-if="!found.runs.length" class="quiet">Nothing yet.</p>
          <ul class="rows">
            <li v-for="one in found.runs" :key="one.uuid" class="tools" :class="{ gone: one.taken_back }">
              <svg class="mark" viewBox="0 0 20 20" aria-hidden="true">
                <path v-if="one.outcome === 'saved'" d="m3 10 5 5 9-11" />
                <path v-else-if="one.outcome === 'unsaved'" d="M10 3a7 7 0 1 0 .01 0" />
                <path v-else d="M4 4l12 12M16 4 4 16" />
              </svg>
              <span class="grow"
                ><b>{{ one.name }}</b> {{ OUTCOME[one.outcome].toLowerCase()
                }}{{ one.outcome !== 'saved' ? ` after step ${one.steps} of ${one.of_steps}` : ''
                }}{{ one.words ? `: ${one.words}` : '' }}{{ one.values ? `: ${one.values}` : '' }}
                <small class="quiet"
                  >{{ moment(one.at) }}, {{ one.by }}{{ one.header ? `, ${one.header} on it` : ''
                  }}{{ one.taken_back ? ', taken back' : '' }}</small
                ></span
              >
              <button
                v-if="found.may_calibrate && !one.taken_back"
                type="button"
                class="link"
                @click="takeBack('run', one.uuid)"
              >
                Take back<span class="unseen"> {{ one.name }}</span>
              </button>
            </li>
          </ul>
        </section>
      </div>
      <CollectedLoads
        v-if="found.calibrations.some((one) => one.bench === 'yield' || one.bench === 'moisture')"
        :loads="found.loads"
        :may="found.may_calibrate"
        :at="at"
        ref="loads"
        @collect="take"
        @weigh="weigh"
        @take-back="takeBack('load', $event)"
      />
      <section v-if="found.series.length" class="card" aria-labelledby="figures">
        <h2 id="figures">Figures over time</h2>
        <div class="figures"><FigureLine v-for="one in found.series" :key="one.name" :series="one" /></div>
      </section>
    </template>
  </section>
</template>

<style scoped>
form label {
  max-width: 100%;
  flex-wrap: wrap;
}
.fine {
  color: var(--sound);
  font-weight: 600;
}
.due {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
.due li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
}
.due .grow {
  flex: 1 1 240px;
}
.number {
  flex: none;
  width: 34px;
  height: 34px;
  border: 2px solid var(--accent);
  border-radius: 50%;
  display: grid;
  place-items: center;
  font-weight: 600;
}
.begin {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  min-height: var(--target);
  padding: 0 20px;
  border: 1px solid var(--accent);
  border-radius: var(--radius);
  font-weight: 600;
  text-decoration: none;
  color: var(--accent);
}
.begin.first {
  background: var(--accent);
  color: var(--on-accent);
}
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 380px), 1fr));
  gap: 16px;
  align-items: start;
}
.rows {
  list-style: none;
  margin: 0;
  padding: 0;
}
.rows li {
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
.rows small {
  display: block;
}
.rows .gone b,
.rows .gone .grow {
  text-decoration: line-through;
}
.mark {
  flex: none;
  width: 20px;
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
}
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 300px), 1fr));
  gap: 16px;
}
</style>
