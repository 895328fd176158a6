<script setup lang="ts">
/** Trips and deliveries over the days, without a map: the yard is the ground, the suppliers stand above it, the farther the higher. */
import { computed } from 'vue'
import type { OnePlan } from './plan'

const props = defineProps<{ plan: OnePlan; start: string; suppliers: string[]; needed: string[] }>()
const WIDTH = 372
const LEFT = 4
const TOP = 18
const LANE = 34
const DAY_MS = 86_400_000
const noon = (day: string): number => Date.parse(`${day.slice(0, 10)}T12:00Z`)
const first = computed(() => noon(props.start))
const days = computed(() => {
  const last = Math.max(
    ...[props.plan.last_arrival ?? props.start, ...props.needed.filter((day) => noon(day) - first.value <= 9 * DAY_MS)].map(
      noon,
    ),
  )
  return Array.from(
    { length: Math.max(2, Math.round((last - first.value) / DAY_MS) + 1) },
    (_, i) => new Date(first.value + i * DAY_MS),
  )
})
const wide = computed(() => (WIDTH - LEFT * 2) / days.value.length)
const ground = computed(() => TOP + LANE * props.suppliers.length + 6)
const lane = (supplier: string): number => TOP + LANE * (props.suppliers.length - 1 - props.suppliers.indexOf(supplier)) + 12
/** A curve goes three quarters of the way to its handles. */
const reach = (supplier: string): number => ground.value + (lane(supplier) - ground.value) / 0.75
const dayX = (day: string): number => LEFT + ((noon(day) - first.value) / DAY_MS) * wide.value
/** Working hours fill a day's column: half past five in the morning to nine at night. */
const at = (moment: string): number =>
  dayX(moment) +
  wide.value * Math.min(0.96, Math.max(0.04, (Number(moment.slice(11, 13)) + Number(moment.slice(14, 16)) / 60 - 5.5) / 15.5))
const spoken = computed(() =>
  [
    ...props.plan.trips.map((trip) => `drive to ${trip.supplier} on ${trip.date}`),
    ...props.plan.deliveries.map((one) => `${one.supplier} by ${one.way}, here on ${one.arrives}`),
  ].join('; '),
)
const trips = computed(() =>
  props.plan.trips.map((trip) => {
    const [from, to] = [at(trip.leave), Math.max(at(trip.back), at(trip.leave) + 14)]
    return {
      trip,
      from,
      to,
      y: lane(trip.supplier),
      call: trip.call_at ? at(trip.call_at) - 7 : null,
      path: `M${from} ${ground.value} C${from} ${reach(trip.supplier)} ${to} ${reach(trip.supplier)} ${to} ${ground.value}`,
    }
  }),
)
const sent = computed(() =>
  props.plan.deliveries.map((one) => ({
    one,
    x1: dayX(one.goes_out) + wide.value * 0.5,
    y: lane(one.supplier),
    x2: dayX(one.arrives) + wide.value * 0.5,
  })),
)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${ground + 36}`" role="img" :aria-label="`Trips and days: ${spoken}`">
    <g v-for="(day, i) in days" :key="i">
      <rect
        :x="LEFT + i * wide"
        :y="TOP"
        :width="wide"
        :height="ground - TOP"
        :class="{ rest: [0, 6].includes(day.getUTCDay()) }"
        class="day"
      />
      <text :x="LEFT + (i + 0.5) * wide" :y="ground + 15" class="word">
        {{ day.toLocaleDateString('en-GB', { weekday: wide < 30 ? 'narrow' : 'short', timeZone: 'UTC' }) }}
      </text>
    </g>
    <path v-for="supplier in suppliers" :key="supplier" :d="`M${LEFT} ${lane(supplier)}H${WIDTH - LEFT}`" class="lane" />
    <path :d="`M${LEFT} ${ground}H${WIDTH - LEFT}`" class="ground" />
    <g v-for="one in trips" :key="one.trip.supplier + one.trip.date">
      <path :d="one.path" class="trip" :class="{ maybe: one.trip.only_if_there }" />
      <circle :cx="(one.from + one.to) / 2" :cy="one.y" r="4" class="dot" />
      <path v-if="one.call !== null" :d="`M${one.call - 5} ${ground - 10}v-5a5 5 0 0 1 10 0v5`" class="call" />
    </g>
    <g v-for="one in sent" :key="one.one.supplier + one.one.way">
      <path :d="`M${one.x1} ${one.y}L${one.x2} ${ground}`" class="sent" />
      <rect :x="one.x2 - 5" :y="ground - 10" width="10" height="10" class="box" />
    </g>
    <path
      v-for="day in needed.filter((one) => dayX(one) < WIDTH - LEFT)"
      :key="day"
      :d="`M${dayX(day) + wide - 4} ${ground}v7m-5 0h10`"
      class="need"
    />
    <text v-for="supplier in suppliers" :key="supplier" :x="WIDTH - LEFT - 3" :y="lane(supplier) - 4" class="name">
      {{ supplier }}
    </text>
    <text :x="LEFT" :y="ground + 32" class="word small">
      Solid: trip. Broken: trip only if they have it. Dotted: sent. ⊥: wanted
    </text>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  display: block;
}
.day {
  fill: transparent;
  stroke: var(--line);
  stroke-width: 0.6;
}
.day.rest {
  fill: var(--sunk);
}
.lane {
  stroke: var(--steel);
  stroke-width: 1;
}
.ground {
  stroke: var(--soil);
  stroke-width: 4;
}
.name {
  text-anchor: end;
  font-size: 12.5px;
  fill: var(--quiet);
  paint-order: stroke;
  stroke: var(--surface);
  stroke-width: 3px;
}
.word {
  font-size: 12.5px;
  fill: var(--quiet);
  text-anchor: middle;
}
.small {
  text-anchor: start;
  font-size: 11.5px;
}
.trip {
  fill: none;
  stroke: var(--accent);
  stroke-width: 3;
}
.trip.maybe {
  stroke-dasharray: 7 4;
}
.dot {
  fill: var(--accent);
}
.call {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2.4;
  stroke-linecap: round;
}
.sent {
  stroke: var(--sound);
  stroke-width: 2.6;
  stroke-dasharray: 1 5;
  stroke-linecap: round;
}
.box {
  fill: var(--sound);
}
.need {
  stroke: var(--due);
  stroke-width: 2;
  fill: none;
}
</style>
