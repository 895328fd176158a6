<script setup lang="ts">
/** The spectrum of a recording with its peaks and where the shafts stand; another one beside it, by order where the speeds differ. */
import { computed } from 'vue'
import { BASE, HEIGHT, LEFT, WIDTH, lineOf, peakWords, scaleOf, stepsTo, unitOf, type Recording } from './spectrum'

const props = defineProps<{ recording: Recording }>()
const other = computed(() => props.recording.beside_spectrum)
const turns = (rpm: number): number => rpm / 60
/** Two speeds of the engine are laid over each other by turns of the engine. */
const byOrder = computed(
  () => !!props.recording.beside && Math.abs(props.recording.beside.engine_rpm / props.recording.engine_rpm - 1) > 0.04,
)
const per = computed(() => (byOrder.value ? turns(props.recording.engine_rpm) : 1))
const perOther = computed(() => (byOrder.value ? turns(props.recording.beside!.engine_rpm) : 1))
const peaks = computed(() => props.recording.peaks.slice(0, 6))
const scale = computed(() =>
  scaleOf(
    [props.recording.spectrum, ...(other.value ? [other.value] : [])],
    peaks.value.map((one) => one.hz / per.value),
    [per.value, perOther.value],
  ),
)
/** First turns of the shafts that speak, and of all others quietly. */
const named = computed(() => new Set(props.recording.ranked.map((one) => one.shaft)))
const marks = computed(() =>
  props.recording.shafts
    .flatMap((shaft) => shaft.orders.map((order) => ({ ...order, shaft: shaft.name, speaks: named.value.has(shaft.name) })))
    .filter((one) => one.observable && one.hz / per.value <= scale.value.last),
)
const said = computed(() =>
  props.recording.peaks
    .slice(0, 6)
    .map((one) => `${one.hz.toFixed(1)} Hz: ${peakWords(one)}`)
    .join('; '),
)
</script>

<template>
  <figure>
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" :aria-label="`Spectrum. ${said || 'No peak stands out.'}`">
      <g v-for="(one, i) in marks" :key="i" :class="one.speaks ? 'speaks' : 'quietly'">
        <path :d="`M${scale.x(one.hz / per)} ${BASE}V14`" />
      </g>
      <polyline v-if="other" :points="lineOf(other, scale, perOther)" class="other" />
      <polyline :points="lineOf(recording.spectrum, scale, per)" class="own" />
      <g v-for="(one, i) in peaks" :key="one.hz">
        <circle :cx="scale.x(one.hz / per)" :cy="scale.y(one.amplitude)" r="4" :class="{ unmatched: !one.matches.length }" />
        <text v-if="i < 3" :x="scale.x(one.hz / per) + 8" :y="Math.max(14, scale.y(one.amplitude) + 4)">
          {{ one.matches[0]?.shaft ?? 'no shaft' }}
        </text>
      </g>
      <text x="4" y="2" class="tick top">{{ scale.top.toFixed(scale.top < 1 ? 2 : 1) }} {{ unitOf(recording) }}</text>
      <path :d="`M${LEFT} ${BASE}H${WIDTH - 10}`" class="axis" />
      <text v-for="at in stepsTo(scale.last)" :key="at" :x="scale.x(at)" :y="HEIGHT - 10" class="tick">{{ at }}</text>
      <text :x="WIDTH - 10" :y="BASE - 6" class="unit">{{ byOrder ? 'turns of the engine' : 'Hz' }}</text>
    </svg>
    <figcaption class="quiet">
      Upright lines: turns and orders of the shafts, thick where one of them speaks.
      <template v-if="recording.beside"
        >Solid: {{ Math.round(recording.engine_rpm) }} rpm; dashed: {{ Math.round(recording.beside.engine_rpm) }} rpm{{
          byOrder ? ', laid over each other by turns of the engine: what follows it stands at one place' : ''
        }}.</template
      >
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  width: 100%;
}
polyline {
  fill: none;
  stroke-width: 1.6;
}
.own {
  stroke: var(--ink);
}
.other {
  stroke: var(--watch);
  stroke-dasharray: 6 4;
}
.axis {
  stroke: var(--ink);
}
.quietly path {
  stroke: var(--line);
}
.speaks path {
  stroke: var(--accent);
  stroke-width: 3;
  opacity: 0.45;
}
circle {
  fill: var(--accent);
}
.unmatched {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 2;
}
text {
  font-size: 13px;
  fill: var(--ink);
}
.tick {
  text-anchor: middle;
  fill: var(--quiet);
}
.top {
  text-anchor: start;
  dominant-baseline: hanging;
}
.unit {
  text-anchor: end;
  fill: var(--quiet);
}
@media (max-width: 700px) {
  text {
    font-size: 32px;
  }
}
</style>
