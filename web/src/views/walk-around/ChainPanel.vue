<script setup lang="ts">
/** What is judged as one: every reading of one chain on one screen, each a key away, with the one advice they come to. */
import { computed } from 'vue'
import type { Check } from '@/api/client'
import SeverityMark from '@/design/SeverityMark.vue'
import type { Severity } from '@/design/severity'
import { adviceOf } from './together'
import type { WalkAroundState } from './useWalkAround'

const props = defineProps<{ check: Check; checks: Check[]; state: WalkAroundState }>()
const emit = defineEmits<{ go: [check: string] }>()

const rows = computed(() =>
  props.checks
    .filter((one) => one.together === props.check.together)
    .map((one) => ({
      check: one,
      cells: one.positions.map((position) => ({ position, ...props.state.cell(one, position) })),
    })),
)
const advice = computed(() =>
  adviceOf(rows.value.flatMap((row) => row.cells.map((cell) => ({ name: row.check.name, place: cell.place })))),
)
</script>

<template>
  <section v-if="rows.length > 1" class="together" :aria-label="`${check.together}: all of it`">
    <h3>{{ check.together }}</h3>
    <p class="advice" aria-live="polite">{{ advice }}</p>
    <ul>
      <li v-for="row in rows" :key="row.check.key" :class="{ here: row.check.key === check.key }">
        <button
          type="button"
          :aria-current="row.check.key === check.key ? 'step' : undefined"
          @click="emit('go', row.check.key)"
        >
          {{ row.check.name }}
        </button>
        <span v-for="cell in row.cells" :key="cell.position" class="cell">
          <SeverityMark :severity="(cell.severity === 'sending' ? 'open' : cell.severity) as Severity" :size="14" />
          {{ cell.place?.shown || '–' }}
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.together {
  margin-top: 10px;
  padding: 10px 12px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--surface);
}
h3 {
  margin: 0;
  font-size: 1rem;
}
.advice {
  margin: 2px 0 6px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  align-items: center;
  border-top: 1px solid var(--line);
}
li.here button {
  font-weight: 700;
}
button {
  flex: 0 1 250px;
  min-height: var(--target);
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.cell {
  display: inline-flex;
  align-items: center;
  gap: 5px;
}
</style>
