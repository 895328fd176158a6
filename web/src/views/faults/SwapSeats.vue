<script setup lang="ts">
/** Rows side by side with the parts that sit on each: suspects, cleared ones, where a part came from. */
import type { Schemas } from '@/api/client'

const props = defineProps<{
  rows: string[]
  slots: Schemas['SwapSlotOut'][]
  seats: Record<string, Record<string, string>>
  suspects: string[]
  cleared: string[]
}>()
const stateOf = (part: string): 'suspect' | 'cleared' | '' =>
  props.suspects.includes(part) ? 'suspect' : props.cleared.includes(part) ? 'cleared' : ''
const WORDS = { suspect: '? may be it', cleared: '✓ cleared', '': 'not run yet' } as const
</script>

<template>
  <div class="sides">
    <table v-for="row in rows" :key="row">
      <caption>
        <svg viewBox="0 0 60 40" aria-hidden="true">
          <path d="M6 8h48M14 8v10h32V8M30 18v8" />
          <circle cx="30" cy="31" r="6" />
        </svg>
        Row
        {{
          row
        }}
      </caption>
      <tbody>
        <tr v-for="one in slots" :key="one.slot" :class="stateOf(`${one.name} ${seats[row]?.[one.name]}`)">
          <th scope="row">{{ one.name }}</th>
          <td>{{ seats[row]?.[one.name] }}</td>
          <td>{{ WORDS[stateOf(`${one.name} ${seats[row]?.[one.name]}`)] }}</td>
        </tr>
        <tr :class="stateOf(`row ${row}`)">
          <th scope="row">its wiring and place</th>
          <td></td>
          <td>{{ WORDS[stateOf(`row ${row}`)] }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.sides {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
}
table {
  flex: 1 1 300px;
  border-collapse: collapse;
}
caption {
  text-align: left;
  font-weight: 700;
}
caption svg {
  width: 48px;
  height: 32px;
  vertical-align: middle;
  fill: none;
  stroke: currentColor;
  stroke-width: 2;
}
th,
td {
  text-align: left;
  padding: 6px 8px;
  border-top: 1px solid var(--line);
  font-weight: 400;
}
tr {
  border-left: 4px solid var(--line);
}
.suspect {
  border-left-color: var(--stop);
  font-weight: 700;
}
.suspect td:last-child {
  font-weight: 700;
}
.cleared {
  border-left-color: var(--sound);
}
</style>
