<script setup lang="ts">
/** One place as small as it can be read beside all the others: points, line, fan, limit, on the same scales. */
import { computed } from 'vue'
import SeverityMark from '@/design/SeverityMark.vue'
import { figure, paths, percent, shortly, type Frame, type Place, type Wear } from './figures'

const props = defineProps<{
  place: Wear
  ahead: Place
  at: Frame
  limit: number
  now: number
  chosen: boolean
  decimals: number
  unit: string
  tips: boolean
}>()
const drawn = computed(() => paths(props.place, props.now, props.at))
const told = computed(
  () =>
    `${props.place.label}, ${props.ahead.state}, expected ${figure(props.ahead.value, props.decimals)} ${props.unit}, ${props.ahead.chance} (${percent(props.ahead.p)})${props.tips ? ', tips over' : ''}${props.ahead.marked.length ? ', ' + props.ahead.marked.join(' ') : ''}`,
)
</script>

<template>
  <button type="button" class="tile" :class="{ chosen, tips }" :aria-pressed="chosen">
    <span class="unseen">{{ told }}</span>
    <span class="head" aria-hidden="true"
      ><b>{{ shortly(place.position) }}</b
      ><SeverityMark :severity="ahead.state" wordless :size="13" /><span
        v-if="ahead.faster"
        class="fast"
        title="Wears faster than the rest"
        >▼</span
      ></span
    >
    <svg class="plot" viewBox="0 0 76 56" aria-hidden="true">
      <path class="fan" :d="drawn.fan" />
      <path class="line" :d="drawn.line" />
      <path class="limit" :d="`M2 ${at.y(limit)}H74`" />
      <template v-for="(one, i) in place.readings" :key="i">
        <template v-if="one.counter !== null">
          <path v-if="one.doubted" class="doubted" :d="`M${at.x(one.counter) - 3} ${at.y(one.value) - 3}l6 6m0-6l-6 6`" />
          <circle v-else :class="one.past ? 'past' : 'read'" :cx="at.x(one.counter)" :cy="at.y(one.value)" r="2.3" />
        </template>
      </template>
      <path
        v-for="fitted in place.fitments.slice(1)"
        :key="fitted.at"
        class="fitted"
        :d="`M${at.x(fitted.counter ?? now)} 2v52`"
      />
    </svg>
    <span class="chance" aria-hidden="true" :class="{ quiet: ahead.state === 'sound' }">{{
      ahead.state === 'due' ? 'at limit' : ahead.p < 0.005 ? '<1 %' : percent(ahead.p)
    }}</span>
  </button>
</template>

<style scoped>
.tile {
  position: relative;
  display: grid;
  min-width: 0;
  gap: 0;
  padding: 3px 4px 2px;
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--surface);
  cursor: pointer;
  text-align: left;
}
.tile.chosen {
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1px var(--accent);
}
.tile.tips {
  background: var(--accent-soft);
}
.head {
  display: flex;
  align-items: center;
  gap: 4px;
  font-size: 0.95rem;
  line-height: 1.1;
}
.fast {
  margin-left: auto;
  color: var(--due);
  font-size: 0.7rem;
}
.plot {
  display: block;
  width: 100%;
  height: auto;
}
.chance {
  font-size: 0.9rem;
  line-height: 1.1;
  font-weight: 600;
  white-space: nowrap;
}
.chance.quiet {
  font-weight: 400;
}
.fan {
  fill: var(--accent);
  opacity: 0.25;
}
.line {
  fill: none;
  stroke: var(--accent);
  stroke-width: 1.6;
}
.limit {
  stroke: var(--due);
  stroke-width: 1.4;
  stroke-dasharray: 4 3;
}
.read {
  fill: var(--ink);
}
.past {
  fill: none;
  stroke: var(--steel);
}
.doubted {
  stroke: var(--stop);
  stroke-width: 1.5;
  fill: none;
}
.fitted {
  stroke: var(--sound);
  stroke-width: 1.6;
  stroke-dasharray: 2 2;
}
</style>
