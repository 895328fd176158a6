<script setup lang="ts">
/** One subject: what is typed on one side, the answer with its drawing on the other, as fast as it is typed. */
import Button from '@/design/controls/button'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, api, Refused, write } from '@/api/client'
import { newUuid } from '@/api/uuid'
import { counted } from '@/app/counted'
import FilePick from '@/app/FilePick.vue'
import { useSession } from '@/app/session'
import DrawingOf from '@/design/drawings/DrawingOf.vue'
import SeverityMark from '@/design/SeverityMark.vue'
import { WORDS } from '@/design/severity'
import GaugePanel from '@/standins/GaugePanel.vue'
import BenchForm from './BenchForm.vue'
import { fromQuery, toQuery, type Subject, type Texts } from './address'
import { useBench } from './useBench'

const props = defineProps<{ subject: Subject; machines: { id: number; name: string; kind: string }[] }>()
const route = useRoute()
const router = useRouter()
const session = useSession()
const units = session.me?.units ?? 'mm'
const bench = useBench(props.subject, fromQuery(props.subject, route.query, units))
const { sheet, problem, waits } = bench
const machine = ref(Number(route.query.machine) || 0)
const why = ref(false)
const said = ref('')
const uuid = ref(newUuid())
const mayKeep = computed(() => session.may("write in a machine's log"))
const gauged = computed(() =>
  [...props.subject.fields, ...props.subject.tables.flatMap((table) => table.columns)].some((one) => one.tool),
)

/** The address follows every key, so that a reload or a link opens the same work. The router itself would be slower than a gauge. */
function keepPlace(): void {
  const query = { ...toQuery(props.subject, bench.texts, units), ...(machine.value ? { machine: String(machine.value) } : {}) }
  window.history.replaceState(window.history.state, '', router.resolve({ query }).href)
}
watch(
  [bench.texts, machine],
  () => {
    said.value = ''
    uuid.value = newUuid()
    keepPlace()
  },
  { deep: true },
)

async function attempt(what: () => Promise<string>): Promise<void> {
  try {
    said.value = await what()
  } catch (error) {
    said.value = error instanceof Refused ? error.message : 'That could not be done.'
  }
}
watch(machine, (id) => void attempt(async () => (await bench.machine(id), '')))

const path = computed(() => ({ params: { path: { subject: props.subject.key, machine_id: machine.value } } }))
const keep = (): Promise<void> =>
  attempt(async () => {
    const name = props.machines.find((one) => one.id === machine.value)?.name ?? ''
    await write(() =>
      api.POST('/api/bench/{subject}/machines/{machine_id}', {
        ...path.value,
        body: { uuid: uuid.value, texts: bench.complete.value, note: '' },
      }),
    )
    return `Saved to the log of ${name}.`
  })
const asText = computed(
  () =>
    sheet.value &&
    [
      props.subject.name,
      sheet.value.answer,
      sheet.value.words,
      ...sheet.value.lines.map((line) => `${line.name}: ${line.shown}`),
      ...sheet.value.why,
      props.subject.source,
    ]
      .filter(Boolean)
      .join('\n'),
)
const copy = (): Promise<void> =>
  attempt(async () => (await navigator.clipboard.writeText(asText.value ?? ''), 'Copied as text.'))
const link = (): Promise<void> =>
  attempt(async () => (await navigator.clipboard.writeText(window.location.href), 'Link copied: it opens these figures.'))

const exported = (form: 'csv' | 'xlsx' | 'json'): Promise<void> =>
  attempt(async () => {
    const file = await write<Blob>(
      () =>
        api.POST('/api/bench/{subject}/export/{form}', {
          params: { path: { subject: props.subject.key, form } },
          body: { texts: bench.complete.value },
          parseAs: 'blob',
        }) as never,
    )
    const made = document.createElement('a')
    made.href = URL.createObjectURL(file)
    made.download = `${props.subject.key}.${form}`
    made.click()
    URL.revokeObjectURL(made.href)
    return `Written as ${form.toUpperCase()}.`
  })

const refused = ref<{ line: number; text: string; why: string }[]>([])
const over = ref(false)
const takeFile = (file: File | undefined): Promise<void> =>
  attempt(async () => {
    over.value = false
    if (!file) return ''
    const found = await write(async () =>
      api.POST('/api/bench/{subject}/file', {
        params: { path: { subject: props.subject.key } },
        body: { text: await file.text() },
      }),
    )
    refused.value = found.refused
    bench.set(found.texts as Texts)
    return `${found.taken} taken from ${file.name}${found.refused.length ? `, ${counted(found.refused.length, 'line')} cannot be used` : ''}.`
  })
const meters = ['good', 'gummed', 'worn'] as const
const nominal = computed(() => parseFloat(String(bench.texts.nominal_mm)) || 165)
const meterRun = (meter: (typeof meters)[number]): Promise<void> =>
  attempt(async () => {
    const query = { meter, nominal_mm: nominal.value, seed: Math.floor(Math.random() * 1e6) }
    const text = await answer(
      api.GET('/api/stand-ins/meter-run', { params: { query }, parseAs: 'text' }) as Promise<{
        data?: string
        response: Response
      }>,
    )
    await takeFile(new File([text], `meter-${meter}.csv`))
    return `A run of a ${meter} meter from the simulated test stand.`
  })
</script>

<template>
  <section
    class="subject"
    @dragover.prevent="over = !!subject.takes_file"
    @dragleave="over = false"
    @drop.prevent="takeFile($event.dataTransfer?.files[0])"
  >
    <header>
      <h1>{{ subject.name }}</h1>
      <p class="quiet">{{ subject.about }}</p>
    </header>
    <div class="answer" :class="{ stale: !!problem }" aria-live="polite">
      <template v-if="sheet">
        <p class="big">
          <SeverityMark v-if="sheet.mark" :severity="sheet.mark" :size="26" wordless /> <span>{{ sheet.answer }}</span><small
            v-if="sheet.mark"
            :class="`sev-${sheet.mark}`"
            >{{ WORDS[sheet.mark] }}</small
          >
        </p>
        <p>{{ sheet.words }}</p>
        <div class="picture"><DrawingOf v-if="sheet.drawing" :drawing="sheet.drawing" /></div>
        <p v-if="sheet.caution || subject.safety" class="caution">{{ sheet.caution || subject.safety }}</p>
        <dl>
          <div v-for="line in sheet.lines" :key="line.name">
            <dt><SeverityMark v-if="line.mark" :severity="line.mark" :size="14" /> {{ line.name }}</dt>
            <dd>{{ line.shown }}</dd>
          </div>
        </dl>
        <Button
          class="why"
          severity="secondary"
          text
          :label="why ? 'Hide why' : 'Why?'"
          :aria-expanded="why"
          @click="why = !why"
        />
        <ul v-if="why" class="reasons">
          <li v-for="reason in sheet.why" :key="reason">{{ reason }}</li>
          <li v-for="(source, key) in bench.sources.value" :key="key">
            {{ subject.fields.find((one) => one.key === key)?.name }}: {{ bench.texts[key] }}, {{ source }}.
          </li>
          <li>{{ subject.source }}</li>
        </ul>
      </template>
      <p v-else-if="problem" class="quiet">
        {{ waits ? 'Type the figures to see the answer.' : problem.message }}
      </p>
    </div>
    <div class="typing">
      <div class="start" role="group" aria-label="Examples">
        <span class="quiet">Examples</span>
        <button
          v-for="example in subject.examples"
          :key="example.name"
          type="button"
          class="chip"
          @click="bench.example(example.texts as Texts)"
        >
          {{ example.name }}
        </button>
        <button type="button" class="chip" @click="bench.clear()">Empty</button>
      </div>
      <BenchForm :subject="subject" :bench="bench" :units="units" />
      <p v-if="problem && !problem.field" class="trouble" role="alert">{{ problem.message }}</p>
      <div v-if="subject.takes_file" class="file" :class="{ over }">
        <FilePick label="CSV file" accept=".csv,text/csv,text/plain" @file="takeFile" />
        <span class="quiet">or drop it anywhere here</span>
        <span v-if="subject.takes_file === 'spacings'" class="stand"
          ><span class="quiet">Simulated test stand</span
          ><button v-for="meter in meters" :key="meter" type="button" class="chip" @click="meterRun(meter)">
            {{ meter }}
          </button></span
        >
        <ul v-if="refused.length" class="refused">
          <li v-for="one in refused.slice(0, 20)" :key="one.line">Line {{ one.line }}, “{{ one.text }}”: {{ one.why }}</li>
        </ul>
      </div>
      <GaugePanel v-if="gauged" />
      <div class="out">
        <label class="which"
          ><span class="unseen">Machine</span
          ><select v-model.number="machine" class="pick">
            <option :value="0">No machine</option>
            <option v-for="one in machines" :key="one.id" :value="one.id">{{ one.name }}</option>
          </select></label
        >
        <Button
          v-if="mayKeep"
          label="Save to its log"
          severity="secondary"
          :disabled="!machine || !sheet || !!problem"
          @click="keep"
        />
        <Button label="Copy as text" severity="secondary" text :disabled="!sheet || !!problem" @click="copy" />
        <Button label="Copy link" severity="secondary" text @click="link" />
        <Button
          v-for="form in ['csv', 'xlsx', 'json'] as const"
          :key="form"
          :label="form.toUpperCase()"
          severity="secondary"
          text
          :disabled="!sheet || !!problem"
          :aria-label="`Export as ${form.toUpperCase()}`"
          @click="exported(form)"
        />
      </div>
      <p class="said" role="status">{{ said }}</p>
    </div>
  </section>
</template>

<style scoped src="./BenchSubject.css"></style>
