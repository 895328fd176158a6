<script setup lang="ts">
/** A table from outside: first what each line would do, then the doing of it. Nothing is taken while a line is refused. */
import Button from '@/design/controls/button'
import ProgressBar from '@/design/controls/progressbar'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import type { Step } from '@/api/steps'
import FilePick from '@/app/FilePick.vue'
import { counted } from '@/app/counted'
import { useAttempt } from '@/app/useAttempt'

const props = withDefaults(
  defineProps<{
    label: string
    /** told: how far it is, of what takes its time. */
    send: (form: FormData, told: (step: Step) => void) => Promise<Schemas['TableReportOut']>
    accept?: string
    /** So many of what the file has. */
    named?: (count: number) => string
    /** Also what is taken is told line by line. */
    tell?: boolean
  }>(),
  { accept: '.csv,.xlsx,.txt', named: (count: number) => counted(count, 'line') },
)
const emit = defineEmits<{ taken: [] }>()
const file = ref<File | null>(null)
const found = ref<Schemas['TableReportOut'] | null>(null)
const step = ref<Step | null>(null)
const at = useAttempt('The file could not be read.')
const taken = computed(() => found.value?.lines.filter((line) => line.outcome === 'taken') ?? [])
const refused = computed(() => found.value?.lines.filter((line) => line.outcome === 'refused') ?? [])

function pass(dry: boolean): Promise<boolean> {
  return at.run(async () => {
    const form = new FormData()
    form.append('file', file.value!)
    form.append('dry', String(dry))
    found.value = null
    try {
      found.value = await props.send(form, (one) => (step.value = one))
    } finally {
      step.value = null
    }
    if (!dry && !refused.value.length) emit('taken')
  })
}
function pick(picked: File): void {
  file.value = picked
  void pass(true)
}
</script>

<template>
  <div class="file">
    <p class="tools">
      <FilePick :label="label" :accept="accept" @file="pick" /> <span v-if="file" class="quiet">{{ file.name }}</span>
    </p>
    <p v-if="at.problem" class="problem" role="alert">{{ at.problem }}</p>
    <div v-if="step" role="status">
      <p>{{ step.what }} {{ step.steps }} of {{ counted(step.of, 'line') }} …</p>
      <ProgressBar :value="Math.round((100 * step.steps) / step.of)" :show-value="false" aria-label="Progress" />
    </div>
    <div v-if="found" role="status">
      <p>
        <b>{{ found.taken }}</b> {{ found.dry ? 'to take' : 'taken' }}, <b>{{ found.there }}</b> there already,
        <b>{{ found.refused }}</b> refused<template v-if="found.refused > refused.length"
          >, the first {{ refused.length }} of them:</template
        >
      </p>
      <ul class="refused">
        <li v-for="line in refused" :key="line.line">{{ tell ? '' : `Line ${line.line}: ` }}{{ line.words }}</li>
      </ul>
      <ul v-if="tell && taken.length" class="told" :aria-label="found.dry ? 'To be taken' : 'Taken'">
        <li v-for="line in taken" :key="line.line">{{ line.words }}</li>
      </ul>
      <p v-if="refused.length" class="quiet">Nothing is taken until these are put right.</p>
      <Button
        v-else-if="found.dry && found.taken"
        :label="`Take ${named(found.taken)}`"
        :loading="at.busy"
        @click="pass(false)"
      />
    </div>
  </div>
</template>

<style scoped>
.file {
  display: grid;
  gap: 6px;
}
.refused li {
  color: var(--stop);
}
.told {
  max-height: 300px;
  overflow-y: auto;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
</style>
