<script setup lang="ts">
/** The checks of a station, in working order, with how far each is. */
import { computed, nextTick, ref, watch } from 'vue'
import type { Check } from '@/api/client'
import SeverityMark from '@/design/SeverityMark.vue'
import type { Severity } from '@/design/severity'
import type { WalkAroundState } from './useWalkAround'

const props = defineProps<{ station: string; checks: Check[]; current: string; state: WalkAroundState }>()
const emit = defineEmits<{ go: [key: string] }>()

const list = ref<HTMLElement | null>(null)
/** On a phone the list runs sideways: keep the check in hand in view. */
watch(() => props.current, () => nextTick(() => list.value?.querySelector('.here')?.scrollIntoView?.({ block: 'nearest', inline: 'nearest' })), { immediate: true })

const ORDER: (Severity | 'sending')[] = ['stop', 'due', 'asked', 'watch', 'not-seen', 'sound', 'sending', 'open']
const rows = computed(() =>
  props.checks.map((check) => {
    const cells = check.positions.map((position) => props.state.cell(check, position).severity)
    const worst = ORDER.find((severity) => cells.includes(severity)) ?? 'open'
    const done = cells.filter((severity) => severity !== 'open').length
    return { check, done, total: cells.length, worst: worst === 'sending' ? ('open' as Severity) : worst }
  }),
)
</script>

<template>
  <nav class="checks" :aria-label="`Checks: ${station}`">
    <h2>{{ station }}</h2>
    <ol ref="list">
      <li v-for="row in rows" :key="row.check.key">
        <button type="button" :class="{ here: row.check.key === current, done: row.done === row.total }" :aria-current="row.check.key === current ? 'step' : undefined" @click="emit('go', row.check.key)">
          <SeverityMark :severity="row.worst" />
          <span class="name">{{ row.check.name }}<small v-if="row.check.optional"> optional</small></span>
          <span class="n">{{ row.done }}/{{ row.total }}</span>
        </button>
      </li>
    </ol>
  </nav>
</template>

<style scoped>
.checks { display: grid; align-content: start; gap: 6px; min-width: 0; }
h2 { padding-left: 8px; }
button { display: grid; grid-template-columns: 18px 1fr auto; gap: 8px; align-items: center; width: 100%; min-height: var(--target); padding: 4px 8px; border: 0; border-radius: var(--radius); background: none; text-align: left; line-height: 1.2; cursor: pointer; }
button:hover { background: var(--sunk); }
button.here { background: var(--surface); box-shadow: inset 3px 0 0 var(--accent), var(--shadow); font-weight: 600; }
.n { color: var(--quiet); font-weight: 400; }
small { font-size: 1rem; font-weight: 400; color: var(--quiet); }
@media (max-width: 700px) {
  h2 { display: none; }
  ol { display: flex; overflow-x: auto; gap: 4px; }
  button { width: max-content; max-width: 220px; grid-template-columns: 18px auto auto; }
}
</style>
