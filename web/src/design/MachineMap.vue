<script setup lang="ts">
/**
 * The machine map: the stations in the direction the soil or the crop moves. The line is ink where somebody has looked and
 * dashed where nobody has; the worst that was found stands at each station. Large it navigates, small it sums up.
 */
import { computed, nextTick, ref, watch } from 'vue'
import SeverityMark from './SeverityMark.vue'
import { tallied, WORDS, type Tally } from './severity'
import { signOf } from './stationSigns'

type Station = Tally & { key: string; name: string }
const props = defineProps<{ stations: Station[]; current?: string; small?: boolean }>()
const emit = defineEmits<{ go: [key: string] }>()

const list = ref<HTMLElement | null>(null)
/** On a phone the map runs sideways: keep the station in hand in view. */
watch(
  () => props.current,
  () => nextTick(() => list.value?.querySelector('.here')?.scrollIntoView?.({ block: 'nearest', inline: 'center' })),
  { immediate: true },
)

const shown = computed(() =>
  props.stations.map((station) => {
    const found = tallied(station)
    const done = station.total - station.open
    const notable = found
      .filter((item) => !['sound', 'open', 'does-not-apply'].includes(item.severity))
      .slice(0, props.small || props.stations.length > 11 ? 2 : 3)
    return {
      ...station,
      done,
      worst: found[0]?.severity ?? 'open',
      notable: notable.length ? notable : found.filter((item) => item.severity === 'sound'),
      share: station.total ? (100 * done) / station.total : 0,
      words: [
        `${done} of ${station.total} looked at`,
        ...found.map((item) => `${item.count} ${WORDS[item.severity].toLowerCase()}`),
      ].join(', '),
    }
  }),
)
</script>

<template>
  <ol
    ref="list"
    class="map"
    :class="{ small, many: stations.length > 11, crowd: stations.length > 16 }"
    :aria-label="small ? 'State of the stations' : 'Stations in working order'"
  >
    <li v-for="station in shown" :key="station.key" :class="{ here: station.key === current }">
      <component
        :is="small ? 'div' : 'button'"
        class="stop"
        :type="small ? undefined : 'button'"
        :aria-current="station.key === current ? 'step' : undefined"
        :title="`${station.name}: ${station.words}`"
        @click="!small && emit('go', station.key)"
      >
        <svg class="sign" :class="{ begun: station.done > 0 }" viewBox="0 0 40 30" aria-hidden="true">
          <path :d="signOf(station.key)" />
        </svg>
        <span class="line" aria-hidden="true"><i :style="{ width: station.share + '%' }"></i></span>
        <span class="name">{{ station.name }}</span>
        <span class="state" aria-hidden="true">
          <span v-for="item in station.notable" :key="item.severity" class="count" :class="`sev-${item.severity}`"
            ><SeverityMark :severity="item.severity" :size="small ? 12 : 15" wordless />{{ item.count }}</span
          >
          <span v-if="!station.done" class="quiet">{{ station.total }}</span>
        </span>
        <span class="unseen">{{ station.words }}</span>
      </component>
    </li>
  </ol>
</template>

<style scoped>
.map {
  display: flex;
  padding-right: 14px;
  position: relative;
}
.map::after {
  content: '';
  position: absolute;
  right: 2px;
  top: 32px;
  border: 6px solid transparent;
  border-left: 9px solid var(--ink);
  border-right: 0;
}
li {
  flex: 1 1 0;
  min-width: 0;
}
.stop {
  display: block;
  width: 100%;
  padding: 2px 6px 5px;
  border: 0;
  border-radius: var(--radius);
  background: none;
  text-align: left;
  min-height: 88px;
}
button.stop {
  cursor: pointer;
}
button.stop:hover {
  background: var(--sunk);
}
.here .stop {
  background: var(--surface);
  box-shadow:
    inset 0 -3px 0 var(--accent),
    var(--shadow);
}
.sign {
  display: block;
  width: 40px;
  height: 30px;
}
.sign path {
  fill: none;
  stroke: var(--steel);
  stroke-width: 2;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.sign.begun path {
  stroke: var(--ink);
}
.here .sign path {
  stroke: var(--accent);
}
.line {
  display: block;
  height: 6px;
  margin: 3px -6px 5px;
  border-bottom: 2px dashed var(--steel);
  position: relative;
}
.line i {
  position: absolute;
  left: 0;
  bottom: -4px;
  height: 6px;
  background: var(--ink);
}
.name {
  display: block;
  font-weight: 600;
  line-height: 1.15;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.state {
  display: flex;
  gap: 8px;
}
.count {
  display: inline-flex;
  align-items: center;
  gap: 3px;
  font-weight: 600;
}
.many .stop {
  padding-left: 4px;
  padding-right: 4px;
  min-height: 0;
}
.many .name {
  white-space: normal;
  font-size: 0.95rem;
  line-height: 1.05;
  min-height: 2.1em;
  overflow-wrap: anywhere;
  hyphens: auto;
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
}
/* So many that no word fits: each begins, the whole name is in its title and, for the one in hand, in the heading of the list. */
.crowd .name {
  display: block;
  white-space: nowrap;
  overflow-wrap: normal;
  min-height: 1.15em;
}
.many .state {
  gap: 4px;
  flex-wrap: wrap;
  font-size: 0.95rem;
}
.small.many .name {
  display: none;
}
.small {
  padding-right: 10px;
}
.small::after {
  top: 20px;
  border-width: 5px 0 5px 7px;
}
.small .stop {
  min-height: 0;
  padding: 0 4px;
}
.small .sign {
  width: 28px;
  height: 20px;
}
.small .line {
  margin: 1px -4px 3px;
}
.small .name {
  font-weight: 400;
  font-size: 0.85rem;
  color: var(--quiet);
  white-space: normal;
  min-height: 2.3em;
}
.small .state {
  font-size: 0.9rem;
  gap: 5px;
  min-height: 1.4em;
}
@media (max-width: 700px) {
  .map:not(.small) {
    overflow-x: auto;
  }
  .map:not(.small)::after {
    display: none;
  }
  .map:not(.small) li {
    flex: 0 0 100px;
  }
  .map:not(.small) .name {
    white-space: normal;
    min-height: 2.3em;
  }
  .small .state {
    flex-direction: column;
    gap: 0;
    min-height: 2.8em;
  }
  .small .name {
    display: none;
  }
  /* Too many for figures beside each other: the marks alone, the figures stand in the line below. */
  .small.many .state {
    min-height: 0;
    font-size: 0;
    gap: 2px;
  }
  .small.many .state > .quiet {
    display: none;
  }
  .small.many .sign {
    width: 20px;
    height: 16px;
  }
  .small.many .stop {
    padding: 0 1px;
  }
}
</style>
