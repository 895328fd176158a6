<script setup lang="ts">
/** One recording held against the machine's drive line: which shaft it is, what no shaft gives, and another one beside it. */
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api } from '@/api/client'
import { usePost } from '@/api/usePost'
import { moment } from '@/app/words'
import { useAttempt } from '@/app/useAttempt'
import MachineTabs from '@/views/machine/MachineTabs.vue'
import DriveLine from './DriveLine.vue'
import SpectrumPlot from './SpectrumPlot.vue'
import { percent } from './faults'
import { offWords, peakWords, unitOf, type Recording } from './spectrum'

const props = defineProps<{ id: string; recording: string }>()
const found = ref<Recording | null>(null)
const at = useAttempt('The recording could not be read.')
const post = usePost()
const beside = ref('')
/** The fault that is being traced, which goes on with what this says. */
const trace = String(useRoute().query.trace ?? '')
const path = computed(() => ({ recording_id: props.recording }))
watch(
  [() => props.recording, beside],
  () =>
    at.read(
      async () =>
        void (found.value = await answer(
          api.GET('/api/faults/recordings/{recording_id}', {
            params: { path: path.value, query: beside.value ? { beside: beside.value } : {} },
          }),
        )),
    ),
  { immediate: true },
)
const takeBack = (): Promise<boolean> =>
  at.run(
    async () =>
      void (found.value = await post('/api/faults/recordings/{recording_id}/take-back', path.value, undefined as never, {
        what: 'Recording taken back',
        machine: found.value?.machine.name,
      })),
  )
const FOLLOWS = {
  engine: 'follows the engine',
  not: 'does not follow the engine',
  same: 'there in both',
  only: 'not in the other',
} as const
const SOURCES = { phone: 'the phone’s own sensor', file: 'a file', simulated: 'the simulated recorder' } as const
const line = (one: { engine_rpm: number; at: string; words: string; crop: string }): string =>
  [`${Math.round(one.engine_rpm)} rpm`, moment(one.at), one.crop, one.words].filter(Boolean).join(', ')
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <header class="tools">
      <div class="grow">
        <h1>{{ found ? `${found.machine.name}: how it shook` : 'Recording' }}</h1>
        <p v-if="found" class="quiet">
          {{ found.seconds }} s from {{ SOURCES[found.source] }}, engine at {{ Math.round(found.engine_rpm) }} rpm{{
            found.crop ? `, ${found.crop}` : ''
          }}{{ found.words ? `, ${found.words}` : '' }}. {{ found.by }}, {{ moment(found.at)
          }}{{ found.taken_back ? ', taken back' : '' }}
        </p>
      </div>
      <RouterLink v-if="trace" :to="{ name: 'trace', params: { id, trace } }">Back to the fault</RouterLink>
      <RouterLink :to="{ name: 'recordings', params: { id } }">All recordings</RouterLink>
    </header>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <template v-if="found">
      <p class="says" role="status">
        <template v-if="found.ranked.length"
          >It is the <b>{{ found.says.toLowerCase() }}</b>: {{ percent(found.ranked[0]!.score) }} of what shakes stands at its
          turns.
          <span v-if="found.ranked.length > 1" class="quiet">
            Then
            {{
              found.ranked
                .slice(1, 4)
                .map((one) => `${one.shaft.toLowerCase()} ${percent(one.score)}`)
                .join(', ')
            }}.</span
          ></template
        >
        <template v-else
          ><b>No match.</b>
          {{ found.peaks.length ? 'What shakes stands at no shaft’s turns.' : 'Nothing stands out of the noise.' }}</template
        >
      </p>
      <section class="card" aria-labelledby="spectrum">
        <header class="tools">
          <h2 id="spectrum" class="grow">Spectrum</h2>
          <label v-if="found.others.length"
            >Beside it
            <select v-model="beside">
              <option value="">nothing</option>
              <option v-for="one in found.others" :key="one.uuid" :value="one.uuid">{{ line(one) }}</option>
            </select></label
          >
        </header>
        <SpectrumPlot :recording="found" />
      </section>
      <section v-if="found.compared.length" class="card" aria-labelledby="beside">
        <h2 id="beside">Beside the other</h2>
        <ul class="listed">
          <li v-for="one in found.compared" :key="one.hz">
            <b class="hz">{{ one.hz.toFixed(1) }} Hz</b>
            <span class="grow"
              >{{ FOLLOWS[one.follows] }}{{ one.other_hz ? ` (${one.other_hz.toFixed(1)} Hz there)` : '' }},
              {{ one.order.toFixed(2) }} × the engine’s turn</span
            >
            <span v-if="one.times !== null">{{ one.times.toFixed(2) }} × as strong there</span>
          </li>
        </ul>
      </section>
      <section class="card" aria-labelledby="turns">
        <h2 id="turns">What turned</h2>
        <DriveLine :shafts="found.shafts" :named="found.ranked[0]?.shaft" />
      </section>
      <section v-if="found.peaks.length" class="card" aria-labelledby="peaks">
        <h2 id="peaks">Peaks</h2>
        <ul class="listed">
          <li v-for="one in found.peaks" :key="one.hz">
            <b class="hz">{{ one.hz.toFixed(1) }} Hz</b>
            <span class="grow">{{ peakWords(one) }}{{ one.matches[0] ? `, ${offWords(one.matches[0].off_pct)}` : '' }}</span>
            <span class="quiet">{{ one.amplitude.toFixed(2) }} {{ unitOf(found) }}</span>
          </li>
        </ul>
      </section>
      <button v-if="found.may_trace && !found.taken_back" type="button" class="link" :disabled="at.busy" @click="takeBack">
        Take this recording back
      </button>
    </template>
  </section>
</template>

<style scoped>
.says {
  border-left: 6px solid var(--accent);
  background: var(--surface);
  padding: 10px 14px;
  font-size: 1.25rem;
}
.says .quiet {
  font-size: 1rem;
}
select {
  max-width: min(100%, 420px);
}
label {
  min-width: 0;
}
.hz {
  flex: 0 0 90px;
  font-variant-numeric: tabular-nums;
}
</style>
