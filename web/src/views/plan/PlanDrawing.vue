<script setup lang="ts">
/** The plan drawn: rows downward, time to the right. A job is picked, dragged, or moved with the arrow keys and set with Enter. */
import type { Ready } from '@/app/useReadiness'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { dayOfMonth, weekday, when } from '@/app/words'
import { axisOf, lanes, momentAt, placeOf, stepped, type Column, type Zoom } from './axis'
import { isLate, rowsOf, shortName, type Job, type Plan, type Row, type Rows } from './planned'
import type { Moved } from './usePlan'

const props = defineProps<{
  plan: Plan
  by: Rows
  zoom: Zoom
  picked: string
  put: Moved[]
  moves: boolean
  /** How each machine stands. */
  ready: Map<number, Ready>
}>()
const emit = defineEmits<{ pick: [key: string]; move: [job: Job, start: string, technicians: string[]] }>()
const SLOT = 15
const LANE = 30
const PAD = 4
/** Narrower nothing can be touched. */
const LEAST = 24
/** Narrower there is no room for words. */
const NARROW = 52

/** A job in the hand: where it would go. */
const held = ref<{ job: Job; start: string; row: string; dx: number; by: 'hand' | 'keys' } | null>(null)
/** What is drawn: under a hand that holds a job nothing moves, and a plan that comes meanwhile waits. */
const shown = shallowRef(props.plan)
const drawing = ref<HTMLElement | null>(null)
const jobsDrawn = (): HTMLElement[] => [...(drawing.value?.querySelectorAll<HTMLElement>('.job') ?? [])]
watch([() => props.plan, held], async () => {
  if (held.value || shown.value === props.plan) return
  const focused = jobsDrawn().find((one) => one === document.activeElement)?.dataset.key
  shown.value = props.plan
  await nextTick()
  if (focused)
    jobsDrawn()
      .find((one) => one.dataset.key === focused)
      ?.focus()
})

const shifts = computed(() => shown.value.people.flatMap((one) => one.shifts))
const last = computed(() => {
  const ends = shown.value.jobs.flatMap((job) => job.stretches.map((one) => one.end))
  const dates = shown.value.machines.map((one) => one.due ?? '').filter((due) => due && due < shown.value.ends)
  return [...ends, ...dates, shown.value.now].sort().at(-1)!
})
const axis = computed(() => axisOf(shifts.value, shown.value.now, last.value, props.zoom))
const x = (iso: string): number => placeOf(axis.value, iso)

/** The day over a column; in the season's view the month where it begins. */
function headOf(column: Column, i: number): string {
  if (!column.works) return ''
  if (props.zoom !== 'season') return weekday(column.day)
  const first = !axis.value.columns.slice(0, i).some((one) => one.works && one.day.slice(0, 7) === column.day.slice(0, 7))
  return first ? dayOfMonth(column.day) : String(Number(column.day.slice(8)))
}

const putAt = (job: Job): Moved | undefined => props.put.find((one) => one.key === job.key)
const startOf = (job: Job): string =>
  held.value?.job.key === job.key ? held.value.start : (putAt(job)?.start ?? job.stretches[0]!.start)

interface Drawn {
  job: Job
  key: string
  left: number
  width: number
  lane: number
  first: boolean
}
const rows = computed(() =>
  rowsOf(shown.value, props.by).map((row: Row) => {
    const spans = row.jobs.flatMap((job) =>
      props.zoom === 'season'
        ? [{ job, start: job.stretches[0]!.start, end: job.stretches.at(-1)!.end, first: true }]
        : job.stretches.map((one, i) => ({ job, start: one.start, end: one.end, first: i === 0 })),
    )
    const places = spans.map((span) => ({ left: x(span.start), right: Math.max(x(span.start) + LEAST, x(span.end)) }))
    const { lane, many } = lanes(places)
    const drawn: Drawn[] = spans.map(({ job, start, first }, i) => ({
      job,
      key: `${job.key} ${start}`,
      left: places[i]!.left + x(startOf(job)) - x(job.stretches[0]!.start),
      width: places[i]!.right - places[i]!.left,
      lane: lane[i]!,
      first,
    }))
    return {
      ...row,
      drawn,
      height: many * LANE + 2 * PAD,
      changes: row.machine ? shown.value.posture_moves.filter((one) => one.machine === row.name) : [],
      arrivals: row.machine ? arrivals(row.jobs) : [],
      due: row.machine?.due ? x(row.machine.due) : null,
    }
  }),
)
function arrivals(jobs: Job[]): { at: string; words: string }[] {
  const found = new Map<string, string[]>()
  for (const part of jobs.flatMap((job) => job.parts))
    if (part.arrives) found.set(part.arrives, [...new Set([...(found.get(part.arrives) ?? []), part.words])])
  return [...found].map(([at, words]) => ({ at, words: words.join(', ') }))
}
/** What stands on a job: as much as there is room for. */
function textOf({ job }: Drawn): string {
  return props.by === 'machines' ? job.name : `${job.machine}: ${job.name}`
}
const spoken = (job: Job): string =>
  [
    `${job.machine}: ${job.name}`,
    when(startOf(job)),
    job.technicians.join(' and '),
    job.pinned ? 'set by hand' : '',
    job.done ? 'done' : job.begun_by ? 'under way' : '',
    isLate(shown.value, job) ? 'late' : '',
    job.pin_trouble,
  ]
    .filter(Boolean)
    .join(', ')

function key(event: KeyboardEvent, job: Job): void {
  const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0
  if (by && props.moves && !job.done) {
    event.preventDefault()
    const start = stepped(shifts.value, startOf(job), SLOT, by)
    held.value = { job, start, row: '', dx: 0, by: 'keys' }
  } else if (event.key === 'Enter' && held.value) {
    event.preventDefault()
    drop()
  } else if (event.key === 'Escape') held.value = null
}
let from = 0
function grab(event: PointerEvent, job: Job): void {
  emit('pick', job.key)
  if (!props.moves || job.done || event.button) return
  from = event.clientX
  held.value = { job, start: job.stretches[0]!.start, row: '', dx: 0, by: 'hand' }
  ;(event.currentTarget as HTMLElement).setPointerCapture?.(event.pointerId)
}
function drag(event: PointerEvent): void {
  if (held.value?.by !== 'hand') return
  const dx = event.clientX - from
  const start = momentAt(axis.value, x(held.value.job.stretches[0]!.start) + dx, SLOT)
  const row = document
    .elementsFromPoint(event.clientX, event.clientY)
    .map((one) => (one as HTMLElement).dataset?.row)
    .find(Boolean)
  held.value = { ...held.value, start: Math.abs(dx) < 4 ? held.value.job.stretches[0]!.start : start, row: row ?? '', dx }
}
function drop(): void {
  const moved = held.value
  held.value = null
  if (!moved) return
  const { job, start, row, by } = moved
  const other = props.by === 'people' && row && !job.technicians.includes(row)
  if (by === 'hand' && start === job.stretches[0]!.start && !other) return
  emit('move', job, start, other && job.hands === 1 ? [row] : job.technicians)
}
</script>

<template>
  <div ref="drawing" class="drawn" :class="zoom" @pointermove="drag">
    <div class="sheet" :style="{ width: `${axis.width + 148}px` }">
      <div class="head">
        <span class="name" />
        <span
          v-for="(column, i) in axis.columns"
          :key="column.day"
          class="date"
          :class="{ idle: !column.works }"
          :style="{ width: `${column.width}px` }"
          >{{ headOf(column, i) }}</span
        >
      </div>
      <div v-for="row in rows" :key="row.name" class="row" :data-row="row.name">
        <div class="name" :class="{ late: row.machine && row.machine.late_h > 0 }">
          <b>{{ row.name }}</b>
          <small v-if="row.machine">{{ ready.get(row.machine.id)?.short ?? '' }}</small>
        </div>
        <div class="track" :style="{ minHeight: `${row.height}px`, width: `${axis.width}px` }">
          <i
            v-for="column in axis.columns"
            :key="column.day"
            class="column"
            :class="{ idle: !column.works }"
            :style="{ left: `${column.left}px`, width: `${column.width}px` }"
          />
          <i
            v-if="row.due !== null"
            class="due"
            :class="{ over: row.machine!.late_h > 0 }"
            :style="{ left: `${row.due}px` }"
            :title="`Wanted by ${when(row.machine!.due!)}`"
          />
          <i
            v-for="one in row.changes"
            :key="one.start"
            class="change"
            :style="{ left: `${x(one.start)}px` }"
            :title="`Posture: ${one.to}, ${one.minutes} min`"
          />
          <i
            v-for="one in row.arrivals"
            :key="one.at"
            class="arrival"
            :style="{ left: `${x(one.at)}px` }"
            :title="`${when(one.at)}: ${one.words}`"
          />
          <button
            v-for="one in row.drawn"
            :key="one.key"
            type="button"
            class="job"
            :class="{
              on: picked === one.job.key,
              late: isLate(shown, one.job),
              pinned: one.job.pinned,
              against: !!one.job.pin_trouble,
              begun: !!one.job.begun_by,
              done: one.job.done,
              held: held?.job.key === one.job.key,
              narrow: one.width < NARROW,
              waits: !!putAt(one.job),
            }"
            :style="{ left: `${one.left}px`, width: `${one.width}px`, top: `${PAD + one.lane * LANE}px` }"
            :tabindex="one.first ? 0 : -1"
            :aria-label="spoken(one.job)"
            :data-key="one.job.key"
            :data-short="one.width < NARROW && by !== 'machines' ? shortName(one.job.machine) : null"
            :aria-pressed="picked === one.job.key"
            @click="emit('pick', one.job.key)"
            @keydown="key($event, one.job)"
            @pointerdown="grab($event, one.job)"
            @pointerup="drop"
            @pointercancel="held = null"
          >
            <span v-if="one.width >= NARROW">{{ one.job.pin_trouble ? '! ' : '' }}{{ textOf(one) }}</span>
          </button>
        </div>
      </div>
    </div>
    <p v-if="held" class="where" role="status">
      {{ held.job.name }} at {{ when(held.start) }}{{ held.by === 'keys' ? '. Enter sets it there, Esc leaves it.' : '' }}
    </p>
  </div>
</template>

<style scoped src="./PlanDrawing.css"></style>
