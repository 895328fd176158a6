<script setup lang="ts">
/** What may not last the coming season, over all machines: the dearest to wait with first. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, onMounted, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { asForm, tableTaken, type Step } from '@/api/steps'
import { counted } from '@/app/counted'
import { useSession } from '@/app/session'
import SeverityMark from '@/design/SeverityMark.vue'
import Pager from '@/app/Pager.vue'
import TableFile from '@/app/TableFile.vue'
import { useAsked } from '@/app/useAsked'
import { usePages } from '@/app/usePages'
import { useAttempt } from '@/app/useAttempt'
import { ADVICE, figure, money, percent } from './figures'

const data = ref<Schemas['FleetAheadOut'] | null>(null)
const { asked } = useAsked('search', 'machine')
const at = useAttempt('The forecasts could not be read.')
const load = (): Promise<boolean> => at.read(async () => void (data.value = await answer(api.GET('/api/logbook/ahead'))))
onMounted(load)
const session = useSession()
const counters = (form: FormData, told: (step: Step) => void): Promise<Schemas['TableReportOut']> =>
  tableTaken(() => api.POST('/api/logbook/counters-file', { ...asForm(form), parseAs: 'stream' }) as never, told)
type Line = Schemas['FleetLineOut']
const machines = computed(() => [
  ...new Map((data.value?.lines ?? []).map((line) => [line.machine_id, line.machine])).entries(),
])
const {
  found: lines,
  shown,
  page,
  many,
} = usePages(
  () => (data.value?.lines ?? []).filter((line) => !asked.machine || line.machine_id === Number(asked.machine)),
  asked,
  (line) => `${line.name} ${line.label} ${line.machine}`,
)
const most = computed(() => Math.max(1, ...(data.value?.lines ?? []).map((line) => line.cost_wait ?? 0)))
const total = computed(() => lines.value.reduce((sum, line) => sum + (line.cost_wait ?? 0), 0))
const link = (line: Line) => ({
  name: 'wear',
  params: { id: line.machine_id },
  query: { check: line.check, at: line.position },
})
</script>

<template>
  <section class="desk">
    <p v-if="at.problem" class="trouble" role="alert">
      {{ at.problem }} <Button label="Try again" severity="secondary" @click="load" />
    </p>
    <p v-else-if="!data" class="quiet" role="status">Looking ahead …</p>
    <template v-if="data">
      <header class="tools">
        <div class="grow">
          <h1>Season’s end</h1>
          <p class="quiet">
            What may not last it: {{ counted(lines.length, 'part') }}, {{ money(total, data.currency) }} at risk if all of them
            wait. {{ data.quiet }} more will last.<template v-if="data.without.length">
              No history yet: {{ data.without.join(', ') }}.</template
            >
          </p>
        </div>
        <InputText
          v-if="many || asked.search"
          v-model="asked.search"
          aria-label="Find a part"
          placeholder="Part, row or machine"
          maxlength="80"
        />
        <label
          >Machine
          <select v-model="asked.machine">
            <option value="">All {{ data.machines }}</option>
            <option v-for="[id, name] in machines" :key="id" :value="String(id)">{{ name }}</option>
          </select></label
        >
        <a href="/wear.csv">CSV</a> <a href="/wear.xlsx">XLSX</a>
      </header>
      <p v-if="!data.lines.length" class="quiet">Every part that is measured will last, as far as its history tells.</p>
      <p v-else-if="!lines.length" class="quiet">No part is like that.</p>
      <div v-else class="scroll">
        <table>
          <thead>
            <tr>
              <th scope="col">Waiting risks</th>
              <th scope="col">Part</th>
              <th scope="col">Machine</th>
              <th scope="col">Estimate now → season’s end</th>
              <th scope="col">Chance to reach its limit</th>
              <th scope="col">Pays from</th>
              <th scope="col">By the figures</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in shown" :key="line.machine_id + line.check + line.position">
              <td class="risk">
                <b>{{ line.cost_wait === null ? '–' : money(line.cost_wait, data.currency) }}</b><span
                  class="bar"
                  aria-hidden="true"
                  ><i :style="{ width: `${(100 * (line.cost_wait ?? 0)) / most}%` }"
                /></span>
              </td>
              <td>
                <RouterLink :to="link(line)" :aria-label="`${line.name}, ${line.label}, ${line.machine}`"
                  ><b>{{ line.name }}</b></RouterLink
                ><small>{{ line.label }}</small>
              </td>
              <td>{{ line.machine }}</td>
              <td class="nowrap">
                {{ figure(line.now, line.decimals) }} → <b>{{ figure(line.value, line.decimals) }}</b> {{ line.unit
                }}<small
                  >{{ figure(line.low, line.decimals) }} to {{ figure(line.high, line.decimals) }}, limit
                  {{ figure(line.limit, line.decimals) }} {{ line.unit }}</small
                >
              </td>
              <td class="chance">
                <SeverityMark :severity="line.state" wordless />
                <span>{{ line.state === 'due' ? 'At its limit now' : `${line.chance}, ${percent(line.p)}` }}</span>
              </td>
              <td>{{ line.state === 'due' ? '' : line.break_even === null ? 'no price yet' : percent(line.break_even) }}</td>
              <td>
                <b v-if="line.advice" :class="line.advice">{{ ADVICE[line.advice] }}</b><small
                  v-if="line.cost_now !== null && line.state !== 'due'"
                  >life thrown away {{ money(line.cost_now, data.currency) }}</small
                >
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <Pager v-model="asked.page" :page="page" one="part" />
      <p class="quiet">
        Waiting risks: the chance to fail at work, times field labour, standing and what it breaks, less what the shop would
        cost. Safety items are not in this list: they are put right whatever it costs.
      </p>
      <details v-if="!session.onlyOwns">
        <summary>Counters of several machines from a file</summary>
        <p class="quiet">CSV or XLSX with the columns machine (name or serial), date and counter.</p>
        <TableFile label="File" :send="counters" @taken="load" />
      </details>
    </template>
  </section>
</template>

<style scoped>
.risk {
  min-width: 120px;
}
.risk b {
  white-space: nowrap;
}
.bar {
  display: block;
  height: 6px;
  background: var(--sunk);
  border-radius: 3px;
  margin-top: 4px;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--due);
  border-radius: 3px;
}
.nowrap {
  white-space: nowrap;
}
.chance span {
  font-weight: 600;
}
summary {
  min-height: var(--target);
  display: flex;
  align-items: center;
  cursor: pointer;
  color: var(--accent);
  font-weight: 600;
}
@media (max-width: 700px) {
  header .grow {
    flex-basis: 100%;
  }
  thead {
    display: none;
  }
  tr {
    display: grid;
    grid-template-columns: 104px minmax(0, 1fr);
    padding: 8px 0;
    border-top: 1px solid var(--line);
  }
  tbody td {
    border: 0;
    padding: 2px 10px;
  }
  td:nth-child(1) {
    grid-row: 1 / 3;
    min-width: 0;
  }
  td:nth-child(3) {
    order: 0;
    color: var(--quiet);
  }
  td:nth-child(4),
  td:nth-child(5),
  td:nth-child(7) {
    grid-column: 2;
  }
  td:nth-child(6) {
    display: none;
  }
}
.replace {
  color: var(--due);
}
.wait {
  color: var(--sound);
}
.either {
  color: var(--watch);
}
</style>
