<script setup lang="ts">
/** Every position of the check in hand: rows across as they stand behind the tractor, sides down. */
import { computed } from 'vue'
import type { Check, Schemas } from '@/api/client'
import SeverityMark from '@/design/SeverityMark.vue'
import { WORDS } from '@/design/severity'
import type { WalkAroundState } from './useWalkAround'

const props = defineProps<{ check: Check; positions: Schemas['PositionOut'][]; trackRows: number[]; current: string; state: WalkAroundState; problems: (position: string) => string }>()
const emit = defineEmits<{ go: [position: string] }>()

const here = computed(() => props.positions.filter((position) => props.check.positions.includes(position.key)))
const rows = computed(() => [...new Set(here.value.map((position) => position.row ?? 0))].sort((a, b) => a - b))
const sides = computed(() => [...new Set(here.value.map((position) => position.side ?? ''))].sort())
const SIDES: Record<string, string> = { L: 'Left', R: 'Right', '': '' }
const numeric = computed(() => props.check.options.length === 0)

function cell(row: number, side: string) {
  const position = here.value.find((one) => (one.row ?? 0) === row && (one.side ?? '') === side)
  if (!position) return null
  const found = props.state.cell(props.check, position.key)
  const problem = props.problems(position.key)
  const word = found.severity === 'sending' ? 'on its way' : WORDS[found.severity].toLowerCase()
  const text = found.place?.shown_other ? `${found.place.shown} (${found.place.shown_other})` : found.text
  return { position, found, problem, spoken: [position.label, problem || word, text].filter(Boolean).join(', ') }
}
const lines = computed(() => sides.value.map((side) => ({ side, cells: rows.value.map((row) => cell(row, side)) })))
</script>

<template>
  <div class="grid" :class="{ sided: sides.length > 1 }" role="group" :aria-label="`Positions: ${check.name}`" :style="{ '--rows': rows.length }">
    <div class="line head" aria-hidden="true">
      <span v-if="sides.length > 1"></span>
      <span v-for="row in rows" :key="row" :class="{ track: trackRows.includes(row) }" :title="trackRows.includes(row) ? 'Behind a tractor wheel' : undefined">{{ row || '' }}</span>
    </div>
    <div v-for="line in lines" :key="line.side" class="line">
      <span v-if="sides.length > 1" class="side" aria-hidden="true">{{ SIDES[line.side] }}</span>
      <template v-for="item in line.cells" :key="item?.position.key">
        <button
          v-if="item" type="button" class="cell settle" :class="[item.found.severity, { here: item.position.key === current, problem: item.problem }]"
          :aria-label="item.spoken" :aria-current="item.position.key === current ? 'location' : undefined" :title="item.spoken" tabindex="-1" @click="emit('go', item.position.key)"
        >
          <b class="phone">{{ item.position.row }}{{ item.position.side ? SIDES[item.position.side]!.toLowerCase().slice(0, 1) : '' }}</b>
          <span v-if="item.problem" class="sev-stop" aria-hidden="true">!</span>
          <span v-else-if="item.found.severity === 'sending'" class="way" aria-hidden="true">…</span>
          <SeverityMark v-else :severity="item.found.severity" :size="15" wordless />
          <span v-if="numeric" class="text">{{ item.found.text }}</span>
        </button>
      </template>
    </div>
    <p v-if="trackRows.length && rows.length > 1" class="note"><span class="bar" aria-hidden="true"></span> behind a tractor wheel</p>
  </div>
</template>

<style scoped>
.grid { display: grid; gap: 4px; }
.line { display: grid; grid-template-columns: repeat(var(--rows), minmax(0, 1fr)); gap: 4px; }
.sided .line { grid-template-columns: 44px repeat(var(--rows), minmax(0, 1fr)); }
.head { font-weight: 600; text-align: center; color: var(--quiet); }
.head .track, .note .bar { box-shadow: inset 0 -3px 0 var(--soil); }
.note { display: flex; align-items: center; gap: 6px; color: var(--quiet); }
.note .bar { width: 22px; height: 8px; }
.side { align-self: center; font-weight: 600; color: var(--quiet); }
.cell { min-height: 48px; padding: 2px; border: 1px solid var(--line); border-radius: 6px; background: var(--surface); display: grid; justify-items: center; align-content: center; gap: 1px; cursor: pointer; min-width: 0; }
.cell.open { background: none; border-style: dashed; border-color: var(--steel); }
.cell.here { outline: 3px solid var(--accent); outline-offset: -1px; background: var(--accent-soft); }
.cell.due, .cell.stop { border-color: currentColor; border-width: 2px; }
.cell.due { border-color: var(--due); } .cell.stop { border-color: var(--stop); }
.text { line-height: 1; max-width: 100%; overflow: hidden; text-align: center; }
.way { color: var(--quiet); line-height: 1; }
.phone { display: none; }
@media (max-width: 700px) {
  .head, .side { display: none; }
  .line, .sided .line { grid-template-columns: repeat(6, minmax(0, 1fr)); }
  .phone { display: block; font-weight: 400; color: var(--quiet); line-height: 1; }
}
</style>
