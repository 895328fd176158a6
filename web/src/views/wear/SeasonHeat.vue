<script setup lang="ts">
/** How fast each place wore in each season, beside the others: darker is faster, and the figure stands in the cell. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { figure, shortly } from './figures'

const props = defineProps<{
  seasons: Schemas['SeasonOut'][]
  columns: string[][]
  sides: string[]
  unit: string
  counter: string
  decimals: number
  chosen: string
  rowed: boolean
}>()
defineEmits<{ go: [position: string] }>()
const most = computed(() => Math.max(1e-9, ...props.seasons.flatMap((one) => one.cells.map((cell) => cell.rate ?? 0))))
const rates = computed(() => props.seasons.map((one) => new Map(one.cells.map((cell) => [cell.position, cell.rate]))))
const shade = (rate: number | null | undefined): string =>
  rate == null ? 'transparent' : `color-mix(in srgb, var(--due) ${Math.round((38 * rate) / most.value)}%, var(--surface))`
</script>

<template>
  <table v-if="seasons.length" class="heat matrix" :class="{ few: columns.length < 5 }">
    <caption class="quiet">
      Wear in
      {{
        unit
      }}
      per 100
      {{
        counter
      }}, season by season, from and to in
      {{
        counter
      }}
    </caption>
    <thead :class="{ unseen: rowed || columns.length === 1 }">
      <tr>
        <th scope="col">Season</th>
        <th v-for="column in columns" :key="column[0]" scope="col">{{ column.map(shortly).join(' and ') }}</th>
      </tr>
    </thead>
    <tbody>
      <template v-for="(season, i) in seasons" :key="season.start">
        <tr v-for="(side, s) in sides" :key="side + i">
          <th scope="row">
            <span>{{ s > 0 ? '' : `${Math.round(season.start)}–${Math.round(season.end)}` }}</span> {{ side }}
          </th>
          <td
            v-for="column in columns"
            :key="column[s] ?? column[0]"
            :class="{ chosen: column[s] === chosen }"
            :style="{ background: shade(rates[i]!.get(column[s] ?? '')) }"
            @click="column[s] && $emit('go', column[s]!)"
          >
            {{ rates[i]!.get(column[s] ?? '') == null ? '–' : figure(rates[i]!.get(column[s]!)!, 2) }}
          </td>
        </tr>
      </template>
    </tbody>
  </table>
</template>

<style scoped>
.heat {
  border: 0;
  background: none;
  border-collapse: separate;
  border-spacing: 4px 2px;
  width: calc(100% + 8px);
  margin: 0 -4px;
  table-layout: fixed;
}
.heat.few {
  width: auto;
}
.heat.few tbody td {
  min-width: 96px;
}
.heat thead th {
  padding: 0;
  text-align: center;
  font-size: 0.92rem;
}
.heat thead th:first-child {
  text-align: left;
}
caption {
  text-align: left;
  padding: 0 4px 2px;
}
.heat tbody th {
  width: 96px;
  text-align: left;
  font-weight: 400;
  font-size: 0.92rem;
  white-space: nowrap;
  padding: 0;
}
.heat tbody th span {
  display: inline-block;
  width: 78px;
}
.heat tbody td {
  text-align: center;
  font-size: 0.92rem;
  border: 0;
  border-radius: 4px;
  padding: 0;
  line-height: 1.45;
  cursor: pointer;
}
.heat tbody td.chosen {
  outline: 2px solid var(--accent);
}
@media (max-width: 700px) {
  .heat {
    width: auto;
  }
  .heat tbody td {
    min-width: 62px;
  }
  .heat tbody th {
    width: auto;
    padding-right: 6px;
  }
}
</style>
