<script setup lang="ts">
/** The way through the machine: postures in the order that moves it least, and the checks of the one in hand by station. */
import Button from '@/design/controls/button'
import { computed, nextTick, ref, watch } from 'vue'
import type { Check } from '@/api/client'
import AskOnce from '@/app/AskOnce.vue'
import { counted } from '@/app/counted'
import SeverityMark from '@/design/SeverityMark.vue'
import type { Severity } from '@/design/severity'
import type { Order } from './useOrder'
import type { WalkAroundState } from './useWalkAround'
import { upper } from '@/app/words'

const props = defineProps<{
  order: Order
  current: string
  state: WalkAroundState
  stationNames: Map<string, string>
  mayReorder: boolean
  leftOut: { words: string }[]
}>()
const emit = defineEmits<{ go: [key: string]; move: [from: number, to: number]; takeIn: [] }>()

const list = ref<HTMLElement | null>(null)
/** Keep the check in hand in view, within the list alone: down on a desk, sideways on a phone. */
watch(
  () => props.current,
  () =>
    nextTick(() => {
      const box = list.value
      const here = box?.querySelector<HTMLElement>('.here')
      if (!box || !here) return
      const at = here.getBoundingClientRect()
      const frame = box.getBoundingClientRect()
      if (at.top < frame.top) box.scrollTop += at.top - frame.top - 60
      else if (at.bottom > frame.bottom) box.scrollTop += at.bottom - frame.bottom + 60
      if (at.left < frame.left || at.right > frame.right) box.scrollLeft += at.left - frame.left - 60
    }),
  { immediate: true },
)

const ORDER: (Severity | 'sending')[] = [
  'stop',
  'due',
  'asked',
  'watch',
  'not-seen',
  'sound',
  'does-not-apply',
  'sending',
  'open',
]
function row(check: Check) {
  const cells = check.positions.map((position) => props.state.cell(check, position).severity)
  const worst = ORDER.find((severity) => cells.includes(severity)) ?? 'open'
  const done = cells.filter((severity) => severity !== 'open').length
  return { check, done, total: cells.length, worst: worst === 'sending' ? ('open' as Severity) : worst }
}
const visits = computed(() =>
  props.order.visits.value.map((visit) => {
    const here = visit.checks.includes(props.current)
    const counted = visit.of.filter((check) => !check.optional)
    const open = counted.reduce((sum, check) => sum + props.state.openCount(check), 0)
    const stations = here
      ? [...new Set(visit.of.map((check) => check.station))].map((key) => ({
          key,
          name: props.stationNames.get(key) ?? key,
          rows: visit.of.filter((check) => check.station === key).map(row),
        }))
      : []
    return { ...visit, here, open, stations, held: props.state.holds.value.some((hold) => hold.posture === visit.posture) }
  }),
)
const enter = (visit: { of: Check[] }): void =>
  emit('go', (visit.of.find((check) => !check.optional && props.state.openCount(check) > 0) ?? visit.of[0]!).key)
</script>

<template>
  <nav class="route" aria-label="Postures and checks">
    <ol ref="list">
      <li v-for="visit in visits" :key="visit.index" class="visit" :class="{ now: visit.here }">
        <div class="head">
          <button
            type="button"
            class="posture"
            :aria-expanded="visit.here"
            :title="`${upper(visit.posture)}: ${counted(visit.checks.length, 'check')}, ${visit.open ? counted(visit.open, 'place') + ' open' : 'done'}`"
            @click="enter(visit)"
          >
            <span class="num" :class="{ done: !visit.open }">{{ visit.index + 1 }}</span>
            <span class="name">{{ upper(visit.posture) }}</span>
            <span class="n">{{ visit.open || '✓' }}</span>
          </button>
          <template v-if="visit.here && mayReorder">
            <Button
              class="turn"
              text
              severity="secondary"
              label="↑"
              :aria-label="`${upper(visit.posture)} earlier`"
              :disabled="visit.index === 0"
              @click="emit('move', visit.index, visit.index - 1)"
            />
            <Button
              class="turn"
              text
              severity="secondary"
              label="↓"
              :aria-label="`${upper(visit.posture)} later`"
              :disabled="visit.index === visits.length - 1"
              @click="emit('move', visit.index, visit.index + 1)"
            />
          </template>
        </div>
        <template v-for="station in visit.stations" :key="station.key">
          <h3>{{ station.name }}</h3>
          <button
            v-for="one in station.rows"
            :key="one.check.key"
            type="button"
            class="check"
            :class="{ here: one.check.key === current, done: one.done === one.total }"
            :aria-current="one.check.key === current ? 'step' : undefined"
            @click="emit('go', one.check.key)"
          >
            <SeverityMark :severity="one.worst" />
            <span class="name">{{ one.check.name }}<small v-if="one.check.optional"> optional</small></span>
            <span v-if="one.total > 1" class="n">{{ one.done }}/{{ one.total }}</span>
          </button>
        </template>
      </li>
    </ol>
    <p v-for="one in leftOut" :key="one.words" class="left-out">
      {{ one.words }}
      <AskOnce
        v-if="mayReorder"
        plain
        label="Take them in"
        question="They join this walk-around at their postures; the order of postures is planned again."
        yes="Take them in"
        @yes="emit('takeIn')"
      />
    </p>
  </nav>
</template>

<style scoped>
.route {
  min-width: 0;
}
ol {
  display: grid;
  gap: 1px;
  max-height: max(300px, calc(100vh - 222px - var(--bars, 0px)));
  overflow-y: auto;
}
.left-out {
  margin: 8px 0 0;
  font-size: 0.95rem;
}
.head {
  display: flex;
  align-items: center;
}
.posture {
  flex: 1;
  min-width: 0;
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  min-height: var(--target);
  padding: 2px 6px;
  border: 0;
  border-radius: var(--radius);
  background: none;
  text-align: left;
  line-height: 1.15;
  cursor: pointer;
}
.posture:hover,
.check:hover {
  background: var(--sunk);
}
.num {
  width: 24px;
  height: 24px;
  border-radius: 50%;
  border: 2px solid var(--steel);
  display: grid;
  place-content: center;
  font-weight: 600;
  font-size: 0.95rem;
  line-height: 1;
}
.num.done {
  background: var(--sunk);
  color: var(--quiet);
}
.now > .head .posture {
  font-weight: 600;
}
.now > .head .num {
  border-color: var(--accent);
  background: var(--accent);
  color: var(--on-accent);
}
.now {
  padding-bottom: 6px;
  border-bottom: 1px solid var(--line);
}
.turn {
  width: var(--target);
  min-height: var(--target);
  padding: 0;
}
h3 {
  padding: 6px 6px 2px 14px;
  font-size: 1rem;
  font-weight: 400;
  color: var(--quiet);
}
.check {
  display: grid;
  grid-template-columns: 18px 1fr auto;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: var(--target);
  padding: 3px 6px 3px 14px;
  border: 0;
  border-radius: var(--radius);
  background: none;
  text-align: left;
  line-height: 1.15;
  cursor: pointer;
}
.check.here {
  background: var(--surface);
  box-shadow:
    inset 3px 0 0 var(--accent),
    var(--shadow);
  font-weight: 600;
}
.check.done .name {
  color: var(--quiet);
}
.n {
  color: var(--quiet);
  font-weight: 400;
}
small {
  font-size: 1rem;
  font-weight: 400;
  color: var(--quiet);
}
@media (max-width: 700px) {
  ol {
    display: flex;
    overflow-x: auto;
    max-height: none;
    min-height: 0;
    gap: 4px;
  }
  .visit {
    display: flex;
    flex: none;
    align-items: center;
    padding: 0;
    border: 0;
  }
  .visit:not(.now) .posture .name,
  .turn,
  h3 {
    display: none;
  }
  .posture {
    grid-template-columns: 26px auto auto;
  }
  .now .posture .name {
    max-width: 170px;
  }
  .check {
    width: max-content;
    max-width: 220px;
    grid-template-columns: 18px auto auto;
    min-height: var(--target);
  }
}
</style>
