<script setup lang="ts">
/** Two weeks of a daily card: whole days filled, days with something wrong crossed, days not looked at open, days on
 * which it did not work a dash. */
import type { Schemas } from '@/api/client'
import { date } from '@/app/words'

const props = defineProps<{
  days: Schemas['DailyDayOut'][]
  of: number
  /** The day from which it works; before, nothing is wanted. */
  since: string | null
}>()
const wanted = (one: Schemas['DailyDayOut']): boolean => one.done > 0 || (!!props.since && one.day >= props.since)
const words = (one: Schemas['DailyDayOut'], of: number): string =>
  wanted(one)
    ? `${date(one.day)}: ${one.done} of ${of}${one.wrong ? `, ${one.wrong} wrong` : ''}`
    : `${date(one.day)}: not working`
</script>

<template>
  <svg
    class="dots"
    :viewBox="`0 0 ${days.length * 16} 18`"
    role="img"
    :aria-label="days.map((one) => words(one, of)).join('; ')"
  >
    <g v-for="(one, i) in days" :key="one.day" :transform="`translate(${i * 16 + 8} 9)`">
      <title>{{ words(one, of) }}</title>
      <circle v-if="wanted(one)" r="5.5" :class="one.done >= of ? 'whole' : one.done ? 'part' : 'none'" />
      <path v-else d="M-3 0h6" />
      <path v-if="one.wrong" d="M-3-3 3 3M3-3-3 3" />
    </g>
  </svg>
</template>

<style scoped>
.dots {
  width: 100%;
  max-width: 260px;
}
circle {
  stroke: var(--accent);
  stroke-width: 1.6;
  fill: none;
}
.whole {
  fill: var(--accent);
}
.part {
  fill: var(--accent-soft);
}
.none {
  stroke: var(--quiet);
  stroke-dasharray: 2 2;
}
path {
  stroke: var(--on-accent);
  stroke-width: 1.8;
}
.part + path,
.none + path {
  stroke: var(--stop);
}
</style>
