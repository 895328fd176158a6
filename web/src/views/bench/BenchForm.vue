<script setup lang="ts">
/** The fields and tables of a subject. Enter goes on to the next field, and past the last cell of a table to a new row. */
import InputText from '@/design/controls/inputtext'
import { computed, nextTick, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { takenFor, type Subject, type Units } from './address'
import type { Bench } from './useBench'

type Field = Schemas['FieldOut']
type Table = Schemas['TableOut']
/** units: what a bare length is taken for. */
const props = defineProps<{ subject: Subject; bench: Bench; units: Units }>()
const root = ref<HTMLElement>()

interface Item {
  key: string
  field?: Field
  table?: Table
}
const items = computed<Item[]>(() =>
  props.subject.order
    .map((key) => ({
      key,
      field: props.subject.fields.find((one) => one.key === key),
      table: props.subject.tables.find((one) => one.key === key),
    }))
    .filter((one) => props.bench.shown((one.field ?? one.table)?.when ?? {})),
)
const rows = (table: Table): string[][] => {
  const had = (props.bench.texts[table.key] ?? []) as string[][]
  // One empty row always waits at the end.
  return had.length && had[had.length - 1]!.every((cell) => !cell?.trim()) ? had : [...had, []]
}
const text = (key: string): string => props.bench.texts[key] as string
/** What is wrong there; what has only not been typed yet is not wrong. */
const problem = computed(() => (props.bench.waits.value ? null : props.bench.problem.value))
const wrong = (at: string): string => (problem.value?.field === at ? problem.value.message : '')
const within = (key: string, at = ''): boolean => at === key || at.startsWith(`${key}.`)
const inside = (key: string): string => (within(key, problem.value?.field) ? problem.value!.message : '')
const awaited = (key: string): boolean => props.bench.waits.value && within(key, props.bench.problem.value?.field)

function put(table: Table, row: number, column: number, value: string): void {
  const next = rows(table).map((cells) => [...cells])
  while (next[row]!.length <= column)
    next[row]!.push(next[row]!.length === column ? '' : (table.columns[next[row]!.length]?.start ?? ''))
  next[row]![column] = value
  props.bench.set({ [table.key]: next })
}
function drop(table: Table, row: number): void {
  props.bench.set({ [table.key]: rows(table).filter((_, i) => i !== row) })
}

/** Forward to the next thing that can be typed into; a gauge that ends in Enter works its way through. */
function next(event: KeyboardEvent): void {
  const target = event.target as HTMLElement
  if (event.key !== 'Enter' || target.tagName === 'BUTTON') return
  event.preventDefault()
  void nextTick(() => {
    const all = [...(root.value?.querySelectorAll<HTMLElement>('input, select, textarea') ?? [])]
    const one = all[all.indexOf(target) + (event.shiftKey ? -1 : 1)]
    one?.focus()
    if (one instanceof HTMLInputElement) one.select()
  })
}
</script>

<template>
  <!-- Enter is heard where it bubbles to: every field inside is reached by keyboard itself. -->
  <div ref="root" class="form" @keydown="next">
    <template v-for="{ key, field, table } in items" :key="key">
      <div v-if="field" class="one" :class="{ long: field.kind === 'lengths' }">
        <label :for="`b-${key}`">{{ field.name }} <span v-if="field.optional" class="quiet">if known</span></label>
        <select
          v-if="field.kind === 'choice'"
          :id="`b-${key}`"
          :value="text(key)"
          class="pick"
          @change="bench.set({ [key]: ($event.target as HTMLSelectElement).value })"
        >
          <option v-for="choice in field.choices" :key="choice.key" :value="choice.key">{{ choice.name }}</option>
        </select>
        <textarea
          v-else-if="field.kind === 'lengths'"
          :id="`b-${key}`"
          rows="3"
          maxlength="20000"
          :value="text(key)"
          :data-tool="field.tool"
          data-near="list"
          :aria-invalid="!!inside(key)"
          @input="bench.set({ [key]: ($event.target as HTMLTextAreaElement).value })"
        ></textarea>
        <span v-else class="typed"
          ><InputText
            :id="`b-${key}`"
            :model-value="text(key)"
            maxlength="200"
            :invalid="!!inside(key)"
            :data-tool="field.tool"
            autocomplete="off"
            spellcheck="false"
            :aria-describedby="`n-${key}`"
            @update:model-value="bench.set({ [key]: $event ?? '' })"
          /><i class="unit">{{ field.unit || takenFor(field.kind, text(key), units) }}</i></span
        >
        <p :id="`n-${key}`" class="under">
          <b v-if="inside(key)" class="problem" role="alert">{{ inside(key) }}</b><template v-else-if="awaited(key)"
            >Still to be typed.</template
          ><template v-else-if="bench.sources.value[key]">{{ bench.sources.value[key] }}</template
          ><template v-else>{{ field.hint }}</template>
        </p>
      </div>
      <fieldset v-if="table" class="table">
        <legend>{{ table.name }}</legend>
        <div class="scroll">
          <table>
            <thead>
              <tr>
                <th v-for="column in table.columns" :key="column.key" scope="col">
                  {{ column.name }}<small>&nbsp;{{ column.unit || takenFor(column.kind, '', units) }}</small>
                </th>
                <th><span class="unseen">Remove</span></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(row, i) in rows(table)" :key="i">
                <td v-for="(column, j) in table.columns" :key="column.key">
                  <select
                    v-if="column.kind === 'choice' || column.kind === 'yes-no'"
                    :value="row[j] ?? ''"
                    :aria-label="`${column.name}, line ${i + 1}`"
                    :aria-invalid="!!wrong(`${key}.${i}.${column.key}`)"
                    class="pick"
                    @change="put(table, i, j, ($event.target as HTMLSelectElement).value)"
                  >
                    <option value="">{{ column.start || '–' }}</option>
                    <option v-for="choice in column.choices" :key="choice.key" :value="choice.key">{{ choice.name }}</option>
                  </select>
                  <InputText
                    v-else
                    :model-value="row[j] ?? ''"
                    maxlength="200"
                    :placeholder="column.start"
                    :invalid="!!wrong(`${key}.${i}.${column.key}`)"
                    :aria-label="`${column.name}, line ${i + 1}`"
                    :data-tool="column.tool"
                    autocomplete="off"
                    spellcheck="false"
                    :class="{ wide: column.kind === 'lengths' || column.kind === 'text' }"
                    @update:model-value="put(table, i, j, $event ?? '')"
                  />
                </td>
                <td>
                  <button
                    v-if="i < rows(table).length - 1"
                    type="button"
                    class="drop"
                    tabindex="-1"
                    :aria-label="`Remove line ${i + 1}`"
                    @click="drop(table, i)"
                  >
                    ×
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p class="under">
          <b v-if="inside(key)" class="problem" role="alert">{{ inside(key) }}</b><template v-else-if="awaited(key)"
            >Still to be typed.</template
          ><template v-else>{{
            table.columns
              .map((one) => one.hint)
              .filter(Boolean)
              .join(' · ')
          }}</template>
        </p>
      </fieldset>
    </template>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 4px 14px;
  align-items: start;
}
.one {
  display: grid;
  gap: 2px;
  align-content: start;
}
.one.long,
.table {
  grid-column: 1 / -1;
}
label {
  font-weight: 600;
  line-height: 1.2;
  min-height: 1.2em;
}
label .quiet {
  font-weight: 400;
}
.typed {
  position: relative;
  display: block;
}
.typed :deep(input),
td :deep(input),
textarea,
.pick {
  width: 100%;
  min-height: var(--target);
  font-size: 1.1rem;
  font-variant-numeric: tabular-nums;
}
.typed:has(.unit:not(:empty)) :deep(input) {
  padding-right: 2.6rem;
}
.unit {
  position: absolute;
  right: 10px;
  top: 50%;
  transform: translateY(-50%);
  color: var(--quiet);
  font-style: normal;
  pointer-events: none;
}
textarea,
.pick {
  font-family: inherit;
  color: var(--ink);
  background: var(--surface);
  border: 1px solid var(--quiet);
  border-radius: var(--radius);
  padding: 8px 10px;
}
textarea {
  resize: vertical;
}
[aria-invalid='true'] {
  border-color: var(--stop);
}
.under {
  color: var(--quiet);
  font-size: 0.95rem;
  line-height: 1.25;
  min-height: 1.25em;
}
.problem {
  color: var(--stop);
}
.table {
  border: 0;
  padding: 0;
  margin: 4px 0 0;
  min-width: 0;
}
legend {
  font-weight: 600;
  padding: 0 0 2px;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--quiet);
  line-height: 1.15;
  padding: 0 4px 2px 0;
  vertical-align: bottom;
}
td {
  padding: 0 4px 4px 0;
}
td :deep(input) {
  padding-inline: 8px;
  min-width: 62px;
}
td :deep(input.wide) {
  min-width: 84px;
}
.drop {
  width: var(--target);
  min-height: var(--target);
  border: 0;
  background: none;
  color: var(--quiet);
  font-size: 1.3rem;
  cursor: pointer;
}
</style>
