<script setup lang="ts">
/** Every position of the check in hand: rows across as they stand behind the tractor, sides down; many of a thing run on in lines. */
import { computed, nextTick, ref, watch } from 'vue'
import type { Check, Schemas } from '@/api/client'
import SeverityMark from '@/design/SeverityMark.vue'
import { WORDS } from '@/design/severity'
import type { WalkAroundState } from './useWalkAround'

const props = defineProps<{
  check: Check
  positions: Schemas['PositionOut'][]
  trackRows: number[]
  current: string
  state: WalkAroundState
}>()
const emit = defineEmits<{ go: [position: string] }>()

/** More than this run on in lines, each with its number. */
const ACROSS = 16
const byKey = computed(() => new Map(props.positions.map((position) => [position.key, position])))
const here = computed(() => props.check.positions.map((key) => byKey.value.get(key)!).filter(Boolean))
const sided = computed(() => props.check.per.endsWith('-side'))
const sides = computed(() => (sided.value ? ['L', 'R'] : ['']))
const isRows = computed(() => here.value[0]?.thing === 'row')
const SIDES: Record<string, string> = { L: 'Left', R: 'Right', '': '' }
const numeric = computed(() => props.check.options.length === 0)
const columns = computed(() =>
  here.value
    .filter((one) => !sided.value || one.side === 'L')
    .map((one) => ({
      id: one.number ?? one.key,
      name: one.number === null ? one.label : String(one.number),
      behind: isRows.value && props.trackRows.includes(one.number ?? 0),
    })),
)
const running = computed(() => columns.value.length > ACROSS)

/** Where it scrolls within itself, the place in hand stays in view; the page does not move. */
const grid = ref<HTMLElement | null>(null)
watch(
  () => props.current,
  () =>
    void nextTick(() => {
      const [box, here] = [grid.value, grid.value?.querySelector<HTMLElement>('.here')]
      if (box && here)
        box.scrollTop = Math.min(
          here.offsetTop - 4,
          Math.max(box.scrollTop, here.offsetTop + here.offsetHeight + 4 - box.clientHeight),
        )
    }),
  { immediate: true },
)

function cell(position: Schemas['PositionOut'] | undefined) {
  if (!position) return null
  const found = props.state.cell(props.check, position.key)
  const problem = found.problem
  const word = found.severity === 'sending' ? 'on its way' : WORDS[found.severity].toLowerCase()
  const text = found.place?.shown_other ? `${found.place.shown} (${found.place.shown_other})` : found.text
  const short =
    position.number === null
      ? position.label
      : `${position.number}${sided.value && position.side ? SIDES[position.side]!.slice(0, 1).toLowerCase() : ''}`
  return { position, found, problem, short, spoken: [position.label, problem || word, text].filter(Boolean).join(', ') }
}
const lines = computed(() =>
  sides.value.map((side) => ({
    side,
    cells: columns.value.map((column) =>
      cell(here.value.find((one) => (one.number ?? one.key) === column.id && (!sided.value || one.side === side))),
    ),
  })),
)
</script>

<template>
  <div
    v-if="here.length > 1"
    ref="grid"
    class="grid"
    :tabindex="running ? 0 : undefined"
    :class="{ sided, running }"
    role="group"
    :aria-label="`Positions: ${check.name}`"
    :style="{ '--rows': columns.length }"
  >
    <div v-if="!running" class="line head" aria-hidden="true">
      <span v-if="sided"></span>
      <span
        v-for="column in columns"
        :key="column.id"
        :class="{ track: column.behind }"
        :title="column.behind ? 'Behind a tractor wheel' : undefined"
        >{{ column.name }}</span
      >
    </div>
    <div v-for="line in lines" :key="line.side" class="line">
      <span v-if="sided" class="side" aria-hidden="true">{{ SIDES[line.side] }}</span>
      <template v-for="item in line.cells" :key="item?.position.key">
        <button
          v-if="item"
          type="button"
          class="cell settle"
          :class="[item.found.severity, { here: item.position.key === current, problem: item.problem }]"
          :aria-label="item.spoken"
          :aria-current="item.position.key === current ? 'location' : undefined"
          :title="item.spoken"
          tabindex="-1"
          @click="emit('go', item.position.key)"
        >
          <b class="phone">{{ item.short }}</b>
          <span v-if="item.found.severity === 'sending'" class="way" aria-hidden="true">…</span>
          <SeverityMark v-else :severity="item.found.severity" :size="15" wordless />
          <span v-if="numeric" class="text">{{ item.found.text }}</span>
        </button>
      </template>
    </div>
    <p v-if="isRows && trackRows.length && columns.length > 1" class="note">
      <span class="bar" aria-hidden="true"></span> behind a tractor wheel
    </p>
  </div>
</template>

<style scoped>
.grid {
  display: grid;
  gap: 4px;
}
.line {
  display: grid;
  grid-template-columns: repeat(var(--rows), minmax(0, 1fr));
  gap: 4px;
}
.sided .line {
  grid-template-columns: 44px repeat(var(--rows), minmax(0, 1fr));
}
.head {
  font-weight: 600;
  text-align: center;
  color: var(--quiet);
}
.head .track,
.note .bar {
  box-shadow: inset 0 -3px 0 var(--soil);
}
.note {
  display: flex;
  align-items: center;
  gap: 6px;
  color: var(--quiet);
}
.note .bar {
  width: 22px;
  height: 8px;
}
.side {
  align-self: center;
  font-weight: 600;
  color: var(--quiet);
}
.cell {
  min-height: 44px;
  padding: 1px;
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--surface);
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 1px;
  cursor: pointer;
  min-width: 0;
}
.cell.open {
  background: none;
  border-style: dashed;
  border-color: var(--steel);
}
.cell.here {
  outline: 3px solid var(--accent);
  outline-offset: -1px;
  background: var(--accent-soft);
}
.cell.due,
.cell.stop {
  border-color: currentColor;
  border-width: 2px;
}
.cell.due {
  border-color: var(--due);
}
.cell.stop {
  border-color: var(--stop);
}
.text {
  line-height: 1;
  max-width: 100%;
  overflow: hidden;
  text-align: center;
}
.way {
  color: var(--quiet);
  line-height: 1;
}
.phone {
  display: none;
  font-weight: 400;
  color: var(--quiet);
  line-height: 1;
}
.running .line {
  grid-template-columns: repeat(auto-fill, minmax(44px, 1fr));
}
.running .side {
  grid-column: 1 / -1;
}
.running .phone {
  display: block;
}
.running .cell {
  min-height: 44px;
}
.running {
  position: relative;
  padding: 3px;
  margin: -3px;
}
@media (max-height: 820px) {
  .note {
    display: none;
  }
}
@media (min-width: 701px) and (max-height: 820px) {
  .running {
    max-height: 98px;
    overflow-y: auto;
  }
}
@media (max-width: 700px) {
  .head,
  .side {
    display: none;
  }
  .line,
  .sided .line,
  .running .line {
    grid-template-columns: repeat(6, minmax(0, 1fr));
  }
  .phone {
    display: block;
  }
}
</style>
