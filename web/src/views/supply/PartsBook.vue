<script setup lang="ts">
/** A model's numbers by slot; in and out as a table. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { onMounted, reactive, ref } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api, write, type Schemas } from '@/api/client'
import { counted } from '@/app/counted'
import SupplyTabs from './SupplyTabs.vue'
import TableFile from '@/app/TableFile.vue'
import WholeNumber from '@/app/WholeNumber.vue'
import { useAttempt } from '@/app/useAttempt'

const data = ref<Schemas['BookOut'] | null>(null)
const at = useAttempt('The parts book could not be read.')
const load = (model = 0): Promise<boolean> =>
  at.read(async () => void (data.value = await answer(api.GET('/api/supply/book', { params: { query: { model } } }))))
const route = useRoute()
onMounted(() => load(Number(route.query.model) || 0))
const send = (form: FormData): Promise<Schemas['TableReportOut']> =>
  write(() =>
    api.POST('/api/supply/book/{model_id}/file', {
      params: { path: { model_id: data.value!.model } },
      body: form as never,
      bodySerializer: (body) => body as never,
    }),
  )
const typing = reactive({ key: '', number: '', pack: 1 })
const enter = (line: Schemas['BookLineOut']): void =>
  void Object.assign(typing, { key: line.slot + line.side, number: '', pack: 1 })
const keep = (line: Schemas['BookLineOut']): Promise<boolean> =>
  at.run(async () => {
    await write(() =>
      api.POST('/api/supply/numbers', {
        body: {
          model: data.value!.model,
          slot: line.slot,
          side: line.side as '' | 'L' | 'R',
          number: typing.number,
          pack: typing.pack,
        },
      }),
    )
    typing.key = ''
    data.value = await answer(api.GET('/api/supply/book', { params: { query: { model: data.value!.model } } }))
  })
const SIDES: Record<string, string> = { L: 'left', R: 'right' }
</script>

<template>
  <SupplyTabs />
  <section class="desk">
    <p v-if="at.problem" class="trouble" role="alert">
      {{ at.problem }} <Button v-if="!data" label="Try again" severity="secondary" @click="load()" />
    </p>
    <template v-if="data">
      <header class="tools">
        <h1 class="grow">Parts book</h1>
        <label
          >Model
          <select :value="data.model" @change="load(Number(($event.target as HTMLSelectElement).value))">
            <option v-for="model in data.models" :key="model.id" :value="model.id">
              {{ model.name }}: {{ counted(model.numbers, 'number') }}, {{ counted(model.slots, 'part') }}
            </option>
          </select></label
        >
        <a :href="`/supply/book/${data.model}.csv`">CSV</a><a :href="`/supply/book/${data.model}.xlsx`">XLSX</a>
      </header>
      <TableFile
        v-if="data.may_change"
        :key="data.model"
        label="Read numbers from a file"
        :send="send"
        @taken="load(data.model)"
      />
      <div class="scroll">
        <table class="as-list">
          <thead>
            <tr>
              <th>Part</th>
              <th>Side</th>
              <th>Number</th>
              <th class="n">Pack</th>
              <th>Kind</th>
              <th>Remarks</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in data.lines" :key="line.slot + line.side + line.number" :class="{ missing: !line.number }">
              <td>
                <b>{{ line.name }}</b>
              </td>
              <td data-label="Side">{{ SIDES[line.side] ?? '' }}</td>
              <td>
                <form v-if="typing.key === line.slot + line.side && !line.number" class="tools" @submit.prevent="keep(line)">
                  <InputText
                    v-model="typing.number"
                    maxlength="40"
                    v-focus
                    placeholder="Part number"
                    :aria-label="`Part number of ${line.name}`"
                    :invalid="at.field === 'number'"
                  /><label>packs of <WholeNumber v-model="typing.pack" :invalid="at.field === 'pack'" /></label
                  ><Button type="submit" label="Save" /><Button
                    text
                    severity="secondary"
                    label="Cancel"
                    data-out
                    @click="typing.key = ''"
                  />
                </form>
                <template v-else
                  >{{ line.number || 'to be found' }}
                  <button
                    v-if="!line.number && data.may_change"
                    type="button"
                    class="link"
                    :aria-label="`Enter it: ${line.name}${line.side ? ', ' + SIDES[line.side] : ''}`"
                    @click="enter(line)"
                  >
                    Enter it
                  </button></template
                ><small v-if="line.replaced_by">replaced by {{ line.replaced_by }}</small>
              </td>
              <td class="n" data-label="Pack">{{ line.number ? line.pack : '' }}</td>
              <td>
                <template v-if="line.number"
                  >{{ line.kind }}<small v-if="line.chosen">fitted here</small
                  ><small v-if="line.life !== 1">life × {{ line.life }}</small></template
                >
              </td>
              <td>{{ [line.status === 'scarce' && 'Scarce.', line.mark, line.note].filter(Boolean).join(' ') }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
    <p v-else-if="!at.problem" class="quiet" role="status">Reading the parts book …</p>
  </section>
</template>

<style scoped>
tr.missing td:nth-child(3) {
  color: var(--due);
  font-weight: 600;
}
</style>
