<script setup lang="ts">
/** Recording how a machine shakes: listening first, then the phone on the shield, a file, or the simulated recorder. */
import { computed, onBeforeUnmount, onMounted, reactive, ref } from 'vue'
import { useRoute } from 'vue-router'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import FilePick from '@/app/FilePick.vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { moment } from '@/app/words'
import { figure } from '@/app/figures'
import { useAttempt } from '@/app/useAttempt'
import { useOnward } from '@/app/useOnward'
import { useDraft } from '@/app/useDraft'
import { useSession } from '@/app/session'
import MachineTabs from '@/views/machine/MachineTabs.vue'
import DriveLine from './DriveLine.vue'
import ShaftTable from './ShaftTable.vue'
import { asCsv, feels, record } from './motion'

const props = defineProps<{ id: string }>()
const found = ref<Schemas['RecordingsOut'] | null>(null)
const at = useAttempt('That could not be kept.')
const post = usePost()
const onward = useOnward()
/** The fault that is being traced, which goes on with what the recording says. */
const trace = String(useRoute().query.trace ?? '')
const session = useSession()
const path = { machine_id: Number(props.id) }
const said = reactive({ engine: '', ranges: {} as Record<string, string>, crop: '', station: '', words: '' })
/** One recording until it is kept: pressed again it is the same. */
const uuid = ref(newUuid())
onMounted(() =>
  at.read(async () => {
    found.value = await answer(api.GET('/api/faults/machines/{machine_id}/recordings', { params: { path } }))
    said.engine = String(found.value.engine_rpm ?? '')
    for (const one of ranged.value) said.ranges[one.key] = Object.keys(one.speeds).at(-1)!
  }),
)
const ranged = computed(() => found.value?.shafts.filter((one) => Object.keys(one.speeds).length > 1) ?? [])
const rpm = computed(() => Number(said.engine.replace(',', '.')))
const drawn = computed(() =>
  (found.value?.shafts ?? []).map((one) => {
    const chosen = said.ranges[one.key] ?? Object.keys(one.speeds).at(-1)!
    const share = one.follows && found.value?.engine_rpm && rpm.value ? rpm.value / found.value.engine_rpm : 1
    return { key: one.key, name: one.name, rpm: (one.speeds[chosen] ?? 0) * share, ranged: chosen === 'fixed' ? '' : chosen }
  }),
)
const told = (): Omit<Schemas['SimulatedIn'], 'shaking'> => ({
  uuid: uuid.value,
  engine_rpm: figure(said.engine, 'engine_rpm'),
  ranges: { ...said.ranges },
  rpm: {},
  crop: said.crop,
  station: said.station,
  words: said.words,
})
let stop = new AbortController()
let here = true
onBeforeUnmount(() => {
  here = false
  stop.abort()
})
async function look(): Promise<void> {
  const recording = uuid.value
  uuid.value = newUuid()
  await onward({ name: 'recording', params: { id: props.id, recording }, query: trace ? { trace } : {} })
}
const simulate = (shaking: boolean): Promise<boolean> =>
  at.run(async () => {
    await post(
      '/api/faults/machines/{machine_id}/recordings',
      path,
      { ...told(), shaking },
      { what: 'Recording', machine: found.value?.machine.name },
    )
    await look()
  })
const send = (file: File, source: 'phone' | 'file'): Promise<boolean> =>
  at.run(async () => {
    const form = new FormData()
    form.append('told', JSON.stringify(told()))
    form.append('source', source)
    form.append('file', file)
    await write(() =>
      api.POST('/api/faults/machines/{machine_id}/recordings-file', {
        params: { path },
        body: form as never,
        bodySerializer: (body) => body as never,
      }),
    )
    if (source === 'phone') forget()
    await look()
  })
const SECONDS = 30
const done = ref<number | null>(null)
const trouble = ref('')
/** What the phone felt, kept on this device until the server has it or somebody lets it go. */
const { draft: felt, forget } = useDraft(
  `lumvek:felt:${session.me?.id}:${props.id}`,
  () => ({ uuid: '', csv: '' }),
  (one) => !!one.csv,
)
function sendFelt(): Promise<boolean> {
  uuid.value = felt.uuid
  return send(new File([felt.csv], 'phone.csv', { type: 'text/csv' }), 'phone')
}
async function listen(): Promise<void> {
  stop = new AbortController()
  trouble.value = ''
  done.value = 0
  try {
    const all = await record(SECONDS, (seconds) => (done.value = seconds), stop.signal)
    Object.assign(felt, { uuid: uuid.value, csv: asCsv(all) })
    if (here) await sendFelt()
  } catch (problem) {
    trouble.value = (problem as Error).message
  } finally {
    done.value = null
  }
}
const SOURCES = { phone: 'phone', file: 'file', simulated: 'simulated' } as const
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <header class="tools">
      <h1 class="grow">{{ found ? `${found.machine.name}: how it shakes` : 'Recordings' }}</h1>
      <RouterLink v-if="trace" :to="{ name: 'trace', params: { id, trace } }">Back to the fault</RouterLink>
      <RouterLink :to="{ name: 'faults', params: { id } }">All faults</RouterLink>
    </header>
    <p v-if="at.problem && !at.field" class="trouble" role="alert">{{ at.problem }}</p>
    <template v-if="found">
      <section class="card" aria-labelledby="ear">
        <h2 id="ear">By ear first</h2>
        <p>
          Clean the machine. One person in the cab, one outside on the upwind side, shields closed, hands off, a call to stop
          agreed and somebody at it all the time. Find the side, then the station; again after each change of range. A change of
          speeds can hide the fault: gone is not cured.
        </p>
      </section>
      <p v-if="!found.shafts.length" class="quiet">Nobody has told what turns in this kind of machine.</p>
      <section v-else class="card" data-typed aria-labelledby="record">
        <h2 id="record">Record it</h2>
        <template v-if="found.may_trace">
          <div class="tools">
            <label
              >Engine
              <InputText
                v-model="said.engine"
                inputmode="decimal"
                maxlength="6"
                class="rpm"
                :invalid="at.field === 'engine_rpm'"
              />
              rpm</label
            >
            <label v-for="one in ranged" :key="one.key"
              >{{ one.name }}
              <select v-model="said.ranges[one.key]" :aria-label="`${one.name}: range`">
                <option v-for="name in Object.keys(one.speeds)" :key="name">{{ name }}</option>
              </select></label
            >
            <label
              >Crop
              <select v-model="said.crop" aria-label="Crop">
                <option value="">none</option>
                <option v-for="one in found.crops" :key="one">{{ one }}</option>
              </select></label
            >
            <label class="grow"
              >Where it lay <InputText v-model="said.words" maxlength="200" placeholder="over the chopper"
            /></label>
          </div>
          <p v-if="at.field" class="trouble" role="alert">{{ at.problem }}</p>
          <DriveLine :shafts="drawn" />
          <div class="tools">
            <template v-if="done === null">
              <Button v-if="feels()" :label="`Record ${SECONDS} s with this phone`" :disabled="at.busy" @click="listen" />
              <template v-if="felt.csv">
                <Button severity="secondary" label="Send what the phone felt" :disabled="at.busy" @click="sendFelt" />
                <button type="button" class="link" @click="forget()">Let it go</button>
              </template>
            </template>
            <template v-else>
              <progress :value="done" :max="SECONDS" aria-label="Recording"></progress>
              <span>{{ Math.floor(done) }} of {{ SECONDS }} s. Leave the phone where it lies.</span>
              <Button severity="secondary" label="Enough" @click="stop.abort()" />
            </template>
            <FilePick
              label="From a WAV or CSV file"
              accept=".wav,.csv,audio/wav,text/csv"
              @file="(file) => send(file, 'file')"
            />
            <Button severity="secondary" label="Simulated: it shakes" :disabled="at.busy" @click="simulate(true)" />
            <Button severity="secondary" label="Simulated: it is sound" :disabled="at.busy" @click="simulate(false)" />
          </div>
          <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
        </template>
      </section>
      <section v-if="found.recordings.length" class="card" aria-labelledby="kept">
        <h2 id="kept">Recordings</h2>
        <ul class="listed">
          <li v-for="one in found.recordings" :key="one.uuid">
            <span class="grow"
              ><b>{{ Math.round(one.engine_rpm) }} rpm{{ one.crop ? `, ${one.crop}` : '' }}</b
              ><small class="quiet"
                >{{ moment(one.at) }}, {{ one.by }}, {{ SOURCES[one.source] }}, {{ one.seconds }} s{{
                  one.words ? `: ${one.words}` : ''
                }}</small
              ></span
            >
            <RouterLink :to="{ name: 'recording', params: { id, recording: one.uuid } }">Look</RouterLink>
          </li>
        </ul>
      </section>
      <ShaftTable
        v-if="found.shafts.length"
        :found="found"
        :machine="path.machine_id"
        @changed="(now: Schemas['RecordingsOut']) => (found = now)"
      />
    </template>
  </section>
</template>

<style scoped>
.rpm {
  width: 90px;
}
</style>
