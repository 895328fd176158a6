<script setup lang="ts">
/** Readings out as a file, and in from one: first what each line would do, then the doing of it. Refused lines can be taken away and put right. */
import Button from '@/design/controls/button'
import { computed, ref } from 'vue'
import { api, Refused, write, type Schemas } from '@/api/client'
import FilePick from '@/app/FilePick.vue'
import { upper } from '@/app/words'

const props = defineProps<{ id: string; mayRecord: boolean }>()
const emit = defineEmits<{ taken: [] }>()
const file = ref<File | null>(null)
const found = ref<Schemas['ReadingsFileOut'] | null>(null)
const problem = ref('')
const busy = ref(false)
const refused = computed(() => found.value?.lines.filter((one) => one.outcome === 'refused') ?? [])

async function send(dry: boolean): Promise<void> {
  if (!file.value || busy.value) return
  busy.value = true
  problem.value = ''
  const form = new FormData()
  form.append('file', file.value)
  form.append('dry', String(dry))
  try {
    found.value = await write(() =>
      api.POST('/api/walk-arounds/{walk_around_id}/readings-file', {
        params: { path: { walk_around_id: props.id } },
        body: form as never,
        bodySerializer: (body) => body as never,
      }),
    )
    if (!dry) emit('taken')
  } catch (error) {
    found.value = null
    problem.value = error instanceof Refused ? upper(error.message) : 'The file could not be read.'
  } finally {
    busy.value = false
  }
}
function pick(picked: File): void {
  file.value = picked
  void send(true)
}
function keepRefused(): void {
  const made = document.createElement('a')
  made.href = URL.createObjectURL(
    new Blob([refused.value.map((one) => `${one.text},"line ${one.line}: ${one.says.replaceAll('"', '""')}"`).join('\r\n')], {
      type: 'text/csv',
    }),
  )
  made.download = 'lines-to-put-right.csv'
  made.click()
  URL.revokeObjectURL(made.href)
}
</script>

<template>
  <section class="file" aria-labelledby="readings-file">
    <h3 id="readings-file">Readings as a file</h3>
    <p><a :href="`/walk-arounds/${id}/readings.csv`">CSV</a> <a :href="`/walk-arounds/${id}/readings.xlsx`">XLSX</a></p>
    <template v-if="mayRecord">
      <FilePick label="Read a CSV or XLSX file in" accept=".csv,.xlsx,text/csv" @file="pick" />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div v-if="found" role="status">
        <p>
          <b>{{ found.dry ? `${found.taken} would be taken` : `${found.taken} taken` }}</b>, {{ found.there }} stand there
          already, {{ found.refused }} refused.
        </p>
        <ul v-if="refused.length" class="lines">
          <li v-for="one in refused" :key="one.line">
            <b>Line {{ one.line }}</b> {{ one.says }}<code>{{ one.text }}</code>
          </li>
        </ul>
        <Button v-if="found.dry && found.taken" :label="`Take ${found.taken}`" :loading="busy" @click="send(false)" />
        <Button v-if="refused.length" severity="secondary" text label="Save the refused lines as a file" @click="keepRefused" />
      </div>
    </template>
  </section>
</template>

<style scoped>
.file {
  display: grid;
  gap: 6px;
  margin-top: 14px;
  padding: 12px 14px;
  background: var(--surface);
  border: 1px solid var(--line);
  border-radius: var(--radius);
}
h3 {
  font-size: 1.1rem;
}
p a {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  margin-right: 14px;
}
.lines {
  max-height: 260px;
  overflow-y: auto;
}
.lines li {
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  line-height: 1.25;
}
code {
  display: block;
  color: var(--quiet);
  font-size: 0.9rem;
  overflow-wrap: anywhere;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
</style>
