<script setup lang="ts">
/** Like things side by side: rows across, checks down, every value and verdict; against the others and against last season. */
import Button from '@/design/controls/button'
import SelectButton from '@/design/controls/selectbutton'
import { computed, nextTick, onMounted, reactive, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import { typedAt } from '@/api/clock'
import { outbox } from '@/api/outbox'
import { StorageFull } from '@/api/storage'
import { newUuid } from '@/api/uuid'
import { useSession } from '@/app/session'
import { useAttempt } from '@/app/useAttempt'
import WalkAroundHeader from '@/app/WalkAroundHeader.vue'
import { date } from '@/app/words'
import SeverityMark from '@/design/SeverityMark.vue'
import { WORDS, type Severity } from '@/design/severity'
import { useNewest, type Line } from './useNewest'

type Cell = Schemas['CellOut']
const props = defineProps<{ id: string }>()
const route = useRoute()
const router = useRouter()
const session = useSession()
const data = ref<Schemas['GridOut'] | null>(null)
const at = useAttempt('The map could not be read.')
const SHOW = [
  { label: 'Values', value: 'value' },
  { label: 'Against the others', value: 'off' },
  { label: 'Since last time', value: 'change' },
  { label: 'Wear', value: 'wear' },
]
const show = ref<'value' | 'off' | 'change' | 'wear'>('value')
const worstFirst = ref(false)
/** New figures as they are typed, by their place: each stands until Enter keeps it or Esc lets it go. */
const typed = reactive<Record<string, string>>({})
const placeOf = (line: Line, cell: Cell | null | undefined): string => `${line.check} ${cell?.position ?? ''}`
const here = ref({ line: 0, column: 0 })
const lines = useNewest(props.id, data)
const table = ref<HTMLElement | null>(null)

const load = (): Promise<boolean> =>
  at.read(async () => {
    const thing = typeof route.query.thing === 'string' ? route.query.thing : ''
    data.value = await answer(
      api.GET('/api/walk-arounds/{walk_around_id}/map', { params: { path: { walk_around_id: props.id }, query: { thing } } }),
    )
  })
const problem = computed(() => (at.field === 'thing' ? 'This machine has nothing that is there several times.' : at.problem))
onMounted(load)
watch(() => route.query.thing, load)
/** A verdict that comes back may change its neighbours: read the map again when nothing is on its way. */
watch(
  () => outbox.of(props.id).length,
  (waiting, before) => {
    if (!waiting && before) void load()
  },
)

const order = computed(() => {
  const columns = data.value?.columns ?? []
  return (worstFirst.value ? data.value!.worst : columns).map((name) => ({
    name,
    index: columns.indexOf(name),
    behind: data.value!.marked.includes(name),
  }))
})
const cellAt = (line: number, column: number): Cell | null => lines.value[line]?.cells[order.value[column]?.index ?? -1] ?? null
function text(cell: Cell | null): string {
  if (!cell) return ''
  if (cell.severity === 'sending' || cell.severity === 'asked') return cell.short
  if (show.value === 'wear') return cell.used === null ? '' : `${Math.round(100 * cell.used)} %`
  if (cell.fitted && show.value === 'value') return 'new'
  return show.value === 'off' ? cell.off : show.value === 'change' ? cell.change : cell.short
}
const isNumber = (line: Line): boolean => line.kind === 'measure' || line.kind === 'count'
const chosen = computed(() => cellAt(here.value.line, here.value.column))
const chosenLine = computed(() => lines.value[here.value.line])

function focusCell(): void {
  void nextTick(() => table.value?.querySelector<HTMLElement>('[tabindex="0"]')?.focus())
}
function move(down: number, across: number): void {
  here.value = {
    line: Math.min(Math.max(here.value.line + down, 0), lines.value.length - 1),
    column: Math.min(Math.max(here.value.column + across, 0), order.value.length - 1),
  }
  focusCell()
}
function key(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target instanceof HTMLInputElement) return
  const ways: Record<string, [number, number]> = {
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
    Home: [0, -99],
    End: [0, 99],
  }
  const way = ways[event.key]
  if (way) move(...way)
  else if (event.key === 'Enter') return open()
  else if (
    /^[\d.,]$/.test(event.key) &&
    data.value?.may_record &&
    chosenLine.value?.kind === 'measure' &&
    chosen.value &&
    chosenLine.value.figures === 1
  )
    typed[placeOf(chosenLine.value, chosen.value)] = event.key
  else return
  event.preventDefault()
}
/** Type over a single figure where it stands; anything with more to it opens at its place in the walk-around. */
function retype(): void {
  const [line, cell] = [chosenLine.value, chosen.value]
  if (!line || !cell) return
  const place = placeOf(line, cell)
  const value = typed[place]?.trim()
  if (!value) return letGo(place)
  try {
    outbox.put(
      props.id,
      {
        uuid: newUuid(),
        check: line.check,
        position: cell.position,
        state: 'seen',
        raw: [value],
        reason: '',
        note: '',
        confirmed: false,
        bulk: false,
        posture: '',
        feeler: '',
        units: session.me?.units ?? 'mm',
        taken_at: typedAt(),
      },
      {
        what: `${line.name}, ${data.value?.name.toLowerCase()} ${order.value[here.value.column]?.name ?? ''} ${line.side}`.trim(),
        shown: value,
        machine: data.value?.machine.name,
      },
    )
  } catch (error) {
    // The alarm stands on every screen, and the figure in its cell.
    if (error instanceof StorageFull) return
    throw error
  }
  delete typed[place]
  move(0, 1)
}
function letGo(place: string): void {
  delete typed[place]
  focusCell()
}
function open(): void {
  if (chosen.value && chosenLine.value)
    void router.push({
      name: 'walk-around',
      params: { id: props.id },
      query: { check: chosenLine.value.check, at: chosen.value.position },
    })
}
const wordOf = ({ severity }: Cell): string => (severity === 'sending' ? 'On its way' : WORDS[severity as Severity])
const spoken = (line: Line, column: string, cell: Cell): string =>
  [
    line.name,
    line.side,
    `${data.value?.name} ${column}`,
    cell.fitted || wordOf(cell),
    cell.short,
    cell.shown !== cell.short && cell.shown,
    cell.off && `${cell.off} against the others`,
    cell.change && `${cell.change} since last time`,
  ]
    .filter(Boolean)
    .join(', ')
</script>

<template>
  <p v-if="!data" class="trouble" role="status">
    {{ problem || 'Reading the map …' }}
    <Button
      v-if="problem"
      label="Back to the walk-around"
      severity="secondary"
      @click="router.push({ name: 'walk-around', params: { id } })"
    />
  </p>
  <template v-else>
    <WalkAroundHeader :id="id" :machine="data.machine" :walk-around="data.walk_around" />
    <section class="page">
      <p v-if="problem" class="trouble" role="alert">{{ problem }}</p>
      <div class="tools">
        <label v-if="data.things.length > 1"
          >Side by side
          <select
            :value="data.thing"
            @change="router.replace({ query: { thing: ($event.target as HTMLSelectElement).value } })"
          >
            <option v-for="thing in data.things" :key="thing.key" :value="thing.key">{{ thing.name }}</option>
          </select></label
        >
        <SelectButton
          v-model="show"
          :options="SHOW"
          option-label="label"
          option-value="value"
          :allow-empty="false"
          aria-label="What the cells show"
        />
        <Button
          severity="secondary"
          :label="worstFirst ? 'In order' : 'Worst first'"
          :aria-pressed="worstFirst"
          @click="worstFirst = !worstFirst"
        />
        <span class="quiet">{{
          data.before ? `Last time: ${date(data.before)}` : 'No earlier walk-around to hold this against'
        }}</span>
      </div>
      <div ref="table" class="scroll" data-typed>
        <table class="matrix" :aria-label="`${data.name}s side by side`" role="grid" @keydown="key">
          <thead>
            <tr>
              <th scope="col" class="what">{{ data.name }}</th>
              <th
                v-for="column in order"
                :key="column.name"
                scope="col"
                :class="{ behind: column.behind }"
                :title="column.behind ? 'Behind a tractor wheel' : undefined"
              >
                {{ column.name }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(line, l) in lines" :key="line.check + line.side" :class="{ second: line.side === 'right' }">
              <th scope="row">
                <span v-if="line.side !== 'right'"
                  >{{ line.name }}<small v-if="line.unit">, {{ line.unit }}</small></span
                >
                <small v-if="line.side" class="side">{{ line.side }}</small>
              </th>
              <td
                v-for="(column, c) in order"
                :key="column.name"
                class="cell"
                :class="[
                  line.cells[column.index]?.fitted ? 'renewed' : line.cells[column.index]?.severity,
                  { here: here.line === l && here.column === c },
                ]"
                :tabindex="here.line === l && here.column === c ? 0 : -1"
                role="gridcell"
                :aria-label="line.cells[column.index] ? spoken(line, column.name, line.cells[column.index]!) : 'none'"
                @click="((here = { line: l, column: c }), focusCell())"
                @dblclick="open"
              >
                <input
                  v-if="placeOf(line, line.cells[column.index]) in typed"
                  v-model="typed[placeOf(line, line.cells[column.index])]"
                  maxlength="500"
                  v-focus
                  class="type"
                  :aria-label="`New figure for ${data.name} ${column.name}`"
                  @focus="here = { line: l, column: c }"
                  @click.stop
                  @dblclick.stop
                  @keydown.enter.stop.prevent="retype"
                  @keydown.esc.stop.prevent="letGo(placeOf(line, line.cells[column.index]))"
                />
                <template v-else-if="line.cells[column.index]">
                  <span v-if="line.cells[column.index]!.severity === 'sending'" aria-hidden="true">…</span>
                  <SeverityMark
                    v-else-if="
                      !line.cells[column.index]!.fitted &&
                      (!isNumber(line) ||
                        !text(line.cells[column.index] ?? null) ||
                        !['sound', 'open'].includes(line.cells[column.index]!.severity))
                    "
                    :severity="line.cells[column.index]!.severity as Severity"
                    :size="13"
                    wordless
                  />
                  <span
                    v-if="isNumber(line) || line.cells[column.index]!.fitted"
                    :class="{ apart: show === 'off' && line.cells[column.index]!.deviation > 0.6 }"
                    >{{ text(line.cells[column.index] ?? null) }}</span
                  >
                </template>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="chosen" role="status" aria-live="polite">
        <template v-if="chosen && chosenLine"
          ><SeverityMark
            v-if="!chosen.fitted && chosen.severity !== 'sending'"
            :severity="chosen.severity as Severity"
            wordless
          />
          <b
            >{{ chosenLine.name }}, {{ data.name.toLowerCase() }}
            {{ [order[here.column]?.name, chosenLine.side].filter(Boolean).join(' ') }}.</b
          >
          {{ chosen.fitted ? `${chosen.fitted} Before: ${chosen.shown}.` : chosen.reason || 'Nobody has looked here yet.' }}
          <span v-if="chosen.off" class="quiet">{{ chosen.off }} {{ chosenLine.unit }} against the middle of this line.</span>
          <span v-if="chosen.change" class="quiet">{{ chosen.change }} {{ chosenLine.unit }} since last time.</span></template
        >
      </p>
      <p class="quiet">
        <kbd>←</kbd> <kbd>→</kbd> <kbd>↑</kbd> <kbd>↓</kbd> move<template v-if="data.may_record"
          >, type a figure and <kbd>Enter</kbd> to read again</template
        >, <kbd>Enter</kbd> opens the place<template v-if="data.marked.length">. Underlined: behind a tractor wheel</template>
      </p>
    </section>
  </template>
</template>

<style scoped src="./RowMap.css"></style>
