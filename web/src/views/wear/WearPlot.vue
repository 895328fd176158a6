<script setup lang="ts">
/** One place: readings, fittings, the limit, the line through them and the fan to the season's end; the longer season beside it. */
import { computed } from 'vue'
import { counted } from '@/app/counted'
import { date } from '@/app/words'
import { figure, frame, paths, steps, type Place, type Wear } from './figures'

const props = defineProps<{
  place: Wear
  ahead: Place
  fresh: number
  limit: number
  unit: string
  decimals: number
  now: number
  end: number
  counter: string
  other?: { end: number; place: Place } | undefined
}>()
/** A hand's width shows fewer steps, not smaller letters. */
const narrow = window.matchMedia?.('(max-width: 700px)').matches ?? false
const BOX = { left: 44, top: 30, width: narrow ? 270 : 578, height: 206 }
const WIDTH = BOX.left + BOX.width + (narrow ? 40 : 78)
const at = computed(() => frame([props.place], props.fresh, props.limit, Math.max(props.end, props.other?.end ?? 0), BOX))
const drawn = computed(() => paths(props.place, props.now, at.value))
const bottom = BOX.top + BOX.height
const range = computed(
  () =>
    [props.place, props.fresh, props.limit].length &&
    steps(Math.min(props.fresh, props.limit), Math.max(props.fresh, props.limit), 4),
)
const told = computed(
  () =>
    `${props.place.label}: ${counted(props.ahead.n, 'reading')}, ${figure(props.ahead.now, props.decimals)} ${props.unit} now, expected ${figure(props.ahead.value, props.decimals)} between ${figure(props.ahead.low, props.decimals)} and ${figure(props.ahead.high, props.decimals)} ${props.unit} by the end of the season, limit ${figure(props.limit, props.decimals)} ${props.unit}`,
)
const endX = computed(() => at.value.x(props.end))
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} 290`" role="img" :aria-label="told">
    <g class="axis">
      <path :d="`M${BOX.left} ${bottom}H${BOX.left + BOX.width}`" />
      <template v-for="value in range || []" :key="`y${value}`">
        <path class="grid" :d="`M${BOX.left} ${at.y(value)}H${BOX.left + BOX.width}`" />
        <text :x="BOX.left - 8" :y="at.y(value) + 5" text-anchor="end">{{ figure(value, decimals) }}</text>
      </template>
      <template v-for="value in steps(at.from, at.to, narrow ? 3 : 6)" :key="`x${value}`">
        <path :d="`M${at.x(value)} ${bottom}v5`" />
        <text :x="at.x(value)" :y="bottom + 20" text-anchor="middle">{{ value }}</text>
      </template>
      <text :x="BOX.left + BOX.width" :y="bottom + 38" text-anchor="end">{{ counter }}, counter of the machine</text>
      <text :x="BOX.left - 8" y="14" text-anchor="end">{{ unit }}</text>
    </g>
    <path class="fan" :d="drawn.fan" />
    <path class="line" :d="drawn.line" />
    <path class="now" :d="`M${at.x(now)} ${BOX.top}V${bottom}`" />
    <text class="small" :x="at.x(now) - 5" :y="BOX.top - 6" text-anchor="end">now</text>
    <g v-for="fitted in place.fitments" :key="fitted.at" class="fitted">
      <template v-if="fitted.counter !== null">
        <path :d="`M${at.x(fitted.counter)} ${BOX.top + 6}V${bottom}`" />
        <path class="flag" :d="`M${at.x(fitted.counter)} ${BOX.top - 2}l7 7-7 7-7-7z`" />
        <text class="small" :x="at.x(fitted.counter) + 10" :y="BOX.top + 9">fitted {{ date(fitted.at) }}</text>
      </template>
    </g>
    <path class="limit" :d="`M${BOX.left} ${at.y(limit)}H${BOX.left + BOX.width}`" />
    <text class="limit-word" :x="BOX.left + 6" :y="at.y(limit) - 6">limit {{ figure(limit, decimals) }} {{ unit }}</text>
    <template v-for="(one, i) in place.readings" :key="i">
      <template v-if="one.counter !== null">
        <path v-if="one.doubted" class="doubted" :d="`M${at.x(one.counter) - 6} ${at.y(one.value) - 6}l12 12m0-12l-12 12`" />
        <circle v-else :class="one.past ? 'past' : 'read'" :cx="at.x(one.counter)" :cy="at.y(one.value)" r="5.5" />
        <text v-if="one.doubted" class="small doubt-word" :x="at.x(one.counter) + 10" :y="at.y(one.value) + 4">
          {{ figure(one.value, decimals) }} does not fit
        </text>
      </template>
    </template>
    <g class="end">
      <path
        :d="`M${endX} ${at.y(ahead.low)}V${at.y(ahead.high)}M${endX - 6} ${at.y(ahead.low)}h12M${endX - 6} ${at.y(ahead.high)}h12`"
      />
      <circle :cx="endX" :cy="at.y(ahead.value)" r="4.5" />
      <text :x="endX - 9" :y="at.y(ahead.value) + 16" text-anchor="end">{{ figure(ahead.value, decimals) }}</text>
    </g>
    <g v-if="other" class="other">
      <path :d="`M${at.x(other.end)} ${at.y(other.place.low)}V${at.y(other.place.high)}`" />
      <circle :cx="at.x(other.end)" :cy="at.y(other.place.value)" r="4.5" />
      <text :x="at.x(other.end) + 9" :y="at.y(other.place.value) + 5">{{ figure(other.place.value, decimals) }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-width: 760px;
  height: auto;
}
text {
  font:
    600 14px 'Source Sans 3',
    sans-serif;
  fill: var(--ink);
}
.axis path {
  stroke: var(--steel);
  fill: none;
}
.axis .grid {
  stroke: var(--line);
}
.axis text,
.small {
  font-weight: 400;
  fill: var(--quiet);
}
.fan {
  fill: var(--accent);
  opacity: 0.22;
}
.line {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2.5;
}
.now {
  stroke: var(--line);
  stroke-dasharray: 2 4;
}
.limit {
  stroke: var(--due);
  stroke-width: 2.5;
  stroke-dasharray: 9 5;
  fill: none;
}
.limit-word {
  fill: var(--due);
}
.read {
  fill: var(--ink);
  stroke: var(--surface);
  stroke-width: 1.5;
}
.past {
  fill: none;
  stroke: var(--steel);
  stroke-width: 2;
}
.doubted {
  stroke: var(--stop);
  stroke-width: 2.6;
  fill: none;
}
.doubt-word {
  fill: var(--stop);
  font-weight: 600;
}
.fitted path {
  stroke: var(--sound);
  stroke-dasharray: 3 3;
}
.fitted .flag {
  fill: var(--sound);
  stroke: none;
}
.end path {
  stroke: var(--accent);
  stroke-width: 2.5;
  fill: none;
}
.end circle {
  fill: var(--accent);
}
.other path {
  stroke: var(--watch);
  stroke-width: 2.5;
}
.other circle {
  fill: var(--watch);
}
.other text {
  fill: var(--watch);
}
</style>
