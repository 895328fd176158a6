<script setup lang="ts">
/** A model's numbers by slot; in and out as a table. */
import Button from 'primevue/button'
import { onMounted, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import SupplyTabs from './SupplyTabs.vue'
import TableFile from './TableFile.vue'
import { useAttempt } from './useAttempt'

const data = ref<Schemas['BookOut'] | null>(null)
const at = useAttempt('The parts book could not be read.')
const load = (model = 0): Promise<boolean> => at.run(async () => void (data.value = await answer(api.GET('/api/supply/book', { params: { query: { model } } }))))
onMounted(() => load())
const send = (form: FormData): Promise<Schemas['PartsTableOut']> =>
  write(() => api.POST('/api/supply/book/{model_id}/file', { params: { path: { model_id: data.value!.model } }, body: form as never, bodySerializer: (body) => body as never }))
const SIDES: Record<string, string> = { L: 'left', R: 'right' }
</script>

<template>
  <SupplyTabs />
  <section class="supply">
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }} <Button v-if="!data" label="Try again" severity="secondary" @click="load()" /></p>
    <template v-if="data">
      <header class="tools">
        <h1 class="grow">Parts book</h1>
        <label>Model <select :value="data.model" @change="load(Number(($event.target as HTMLSelectElement).value))"><option v-for="model in data.models" :key="model.id" :value="model.id">{{ model.name }}: {{ model.numbers }} numbers, {{ model.slots }} parts</option></select></label>
        <a :href="`/supply/book/${data.model}.csv`">CSV</a><a :href="`/supply/book/${data.model}.xlsx`">XLSX</a>
      </header>
      <TableFile v-if="data.may_change" :key="data.model" label="Read numbers from a file" :send="send" @taken="load(data.model)" />
      <div class="scroll"><table>
        <thead><tr><th>Part</th><th>Side</th><th>Number</th><th class="n">Pack</th><th>Kind</th><th>Remarks</th></tr></thead>
        <tbody><tr v-for="line in data.lines" :key="line.slot + line.side + line.number" :class="{ missing: !line.number }">
          <td><b>{{ line.name }}</b></td><td>{{ SIDES[line.side] ?? '' }}</td>
          <td>{{ line.number || 'to be found' }}<small v-if="line.replaced_by">replaced by {{ line.replaced_by }}</small></td><td class="n">{{ line.number ? line.pack : '' }}</td>
          <td><template v-if="line.number">{{ line.kind }}<small v-if="line.chosen">fitted here</small><small v-if="line.life !== 1">life × {{ line.life }}</small></template></td>
          <td>{{ [line.status === 'scarce' && 'Scarce.', line.mark, line.note].filter(Boolean).join(' ') }}</td>
        </tr></tbody>
      </table></div>
    </template>
    <p v-else-if="!at.problem" class="quiet" role="status">Reading the parts book …</p>
  </section>
</template>

<style scoped>
tr.missing td:nth-child(3) { color: var(--due); font-weight: 600; }
</style>
