<script setup lang="ts">
/** The walk-around: map, the posture to take up, the check in hand, its positions, and the parts it calls for. */
import Button from '@/design/controls/button'
import SelectButton from '@/design/controls/selectbutton'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { type Schemas } from '@/api/client'
import { useSession } from '@/app/session'
import WalkAroundHeader from '@/app/WalkAroundHeader.vue'
import MachineMap from '@/design/MachineMap.vue'
import { fetchDrawings } from '@/design/drawings/registry'
import ChainPanel from './ChainPanel.vue'
import EntryPanel from './EntryPanel.vue'
import PartsTray from './PartsTray.vue'
import PhotoStrip from './PhotoStrip.vue'
import PinnedPictures from './PinnedPictures.vue'
import PostureGate from './PostureGate.vue'
import RecentVerdicts from './RecentVerdicts.vue'
import RouteList from './RouteList.vue'
import QuestionLine from './QuestionLine.vue'
import RowGrid from './RowGrid.vue'
import StopBar from './StopBar.vue'
import VerdictPanel from './VerdictPanel.vue'
import { kindsOf } from './drawingOf'
import type { Entry } from './entry'
import { useAddress } from './useAddress'
import { useEntry } from './useEntry'
import { useGate } from './useGate'
import { useOrder } from './useOrder'
import { usePlan } from './usePlan'
import { useStops } from './useStops'
import { at, useWalkAround } from './useWalkAround'

const props = defineProps<{ id: string }>()
const route = useRoute()
const session = useSession()

const checkKey = ref('')
const panel = ref<{ focus: () => void } | null>(null)
const gatePanel = ref<{ focus: () => void } | null>(null)
const strip = ref<{ pick: () => void; write: () => void } | null>(null)
const problem = ref('')
const state = useWalkAround(props.id, () => session.me?.name ?? '', begin)
const order = useOrder(state.data)
const { move, takeIn } = usePlan(props.id, state, order, problem)
const entry: Entry = useEntry({
  walkAround: props.id,
  member: session.me?.id ?? 0,
  units: session.me?.units ?? 'mm',
  state,
  order,
  checkKey,
  focusField: () => (gate.value ? gatePanel.value : panel.value)?.focus(),
})
const data = state.data
const stops = useStops(state)
useAddress(entry, checkKey, data)

/** Large is of this walk-around and this tab: another one begins as usual. */
const FAR = `lumvek:called-out:${props.id}`
const far = ref(sessionStorage.getItem(FAR) === 'yes')
watch(far, (on) => sessionStorage.setItem(FAR, on ? 'yes' : 'no'))
/** On a phone the stations and checks stand behind the one in hand. */
const wayOpen = ref(false)
watch(checkKey, () => (wayOpen.value = false))
const SWEEPS = [
  { label: 'By check', value: 'check' },
  { label: 'By row', value: 'row' },
]
const sweep = computed({
  get: () => order.sweep.value,
  set: (way) => {
    order.sweep.value = way
    entry.hand.fix()
    panel.value?.focus()
  },
})

const check = computed(() => entry.check.value)
const visit = computed(() => order.visitOf(check.value.key))
const { posture, held, gate, doubted, confirmPosture, onlyLook } = useGate({
  state,
  entry,
  name: () => session.me?.name ?? '',
  say: (words) => (problem.value = words),
})
const stationNames = computed(() => new Map((data.value?.stations ?? []).map((station) => [station.key, station.name])))
const openHere = computed(() =>
  (visit.value?.of ?? []).filter((one) => !one.optional).reduce((sum, one) => sum + state.openCount(one), 0),
)
const hazardsHere = computed(() => [...new Set((visit.value?.of ?? []).flatMap((one) => one.hazards))])
const hasRows = computed(() =>
  (visit.value?.of ?? []).some(
    (one) =>
      one.thing &&
      (visit.value?.of ?? []).some((other) => other !== one && other.thing === one.thing && other.station === one.station),
  ),
)
const last = computed(() =>
  state.verdicts.last.value?.place.check === check.value.key ? state.verdicts.last.value.place : undefined,
)
/** What was read at all positions of the check in hand, for drawings that show them beside each other. */
const sisters = computed(() =>
  check.value.positions.flatMap((position) => {
    const place = state.places.get(at(check.value.key, position))
    return place?.state === 'seen' && !place.ask
      ? [{ label: position.replace(/^.*-(\d+)$/, '$1').replace('-', ' '), place }]
      : []
  }),
)
/** What the bars above the columns take, so that the list of checks ends with the window. */
const bars = computed(() => (stops.value.length ? 44 : 0) + 40 * (notesHere.value.length + (data.value?.hand_over ? 1 : 0)))

/** The first place nobody has looked at in the order of work, or where the address says. */
function begin(): void {
  if (!data.value || checkKey.value) return
  fetchDrawings(kindsOf(data.value.checks))
  const asked = data.value.checks.find((one) => one.key === route.query.check)
  if (asked) return entry.select(asked.key, typeof route.query.at === 'string' ? route.query.at : undefined)
  const open = order.steps.value.filter((step) => !step.check.optional && state.isOpen(step.check, step.position))
  // Where the machine stands already there is no need to move it.
  const next =
    open.find((step) => state.holds.value.some((hold) => hold.posture === step.check.posture)) ??
    open[0] ??
    order.steps.value[0]
  if (next) entry.select(next.check.key, next.position)
}

onMounted(state.load)
onMounted(() => window.addEventListener('keydown', alt))
onBeforeUnmount(() => window.removeEventListener('keydown', alt))

function goStation(key: string): void {
  const there = order.checks.value.filter((one) => one.station === key)
  const next = there.find((one) => !one.optional && state.openCount(one) > 0) ?? there[0]
  if (next) entry.select(next.key)
}

function closed(note: string): void {
  if (data.value) data.value.notes = data.value.notes.filter((one) => one.uuid !== note)
}
/** A note comes up at its station; one without, or of a station that is not visited this time, always. */
const notesHere = computed(() =>
  (data.value?.notes ?? []).filter((note) => note.station === check.value.station || !stationNames.value.has(note.station)),
)

function takePhotos(photos: Schemas['PhotoOut'][]): void {
  if (data.value) data.value.photos = photos
}

function alt(event: KeyboardEvent): void {
  if (!event.altKey || !data.value?.may_record) return
  const key = event.key.toLowerCase()
  if (key === 'p') strip.value?.pick()
  else if (key === 'n') strip.value?.write()
  else if (key === 'v') far.value = !far.value
  else return
  event.preventDefault()
}
</script>

<template>
  <p v-if="state.problem.value && !data" class="trouble" role="alert">
    {{ state.problem.value }} <Button label="Try again" severity="secondary" @click="state.load()" />
  </p>
  <p v-else-if="!data || !checkKey" class="trouble quiet" role="status">Reading the walk-around …</p>
  <div v-else :class="{ far, 'way-open': wayOpen }" :style="{ '--bars': `${bars}px` }">
    <WalkAroundHeader
      :id="id"
      :place="stationNames.get(check.station)"
      :machine="data.machine"
      :walk-around="data.walk_around"
      :headers="data.headers.map((one) => one.name)"
      :closed="!wayOpen"
      ><button type="button" class="way" :aria-expanded="wayOpen" @click="wayOpen = !wayOpen">
        {{ stationNames.get(check.station) }}
        <svg viewBox="0 0 16 16" width="14" height="14" aria-hidden="true"><path d="m3 6 5 5 5-5" /></svg></button
      ><QuestionLine v-if="data.may_record" :entry="entry"
    /></WalkAroundHeader>
    <MachineMap class="big-map" :stations="data.stations" :current="check.station" @go="goStation" />
    <StopBar
      :stops="stops"
      :notes="notesHere"
      :hand-over="data.may_record ? data.hand_over : null"
      :may-close="data.may_record"
      @go="(key, position) => entry.select(key, position)"
      @closed="closed"
      @opened="(note) => data?.notes.push(note)"
    />
    <div class="columns">
      <RouteList
        class="left"
        :order="order"
        :current="check.key"
        :state="state"
        :station-names="stationNames"
        :may-reorder="data.may_record"
        :left-out="data.left_out"
        @take-in="takeIn"
        @go="(key) => entry.select(key)"
        @move="move"
      />
      <div class="middle">
        <PostureGate
          v-if="gate && posture"
          ref="gatePanel"
          :key="posture.name"
          :posture="posture"
          :visit="visit"
          :visits="order.visits.value.length"
          :places="openHere"
          :hazards="hazardsHere"
          :doubted="doubted"
          @confirm="confirmPosture"
          @look="onlyLook"
        />
        <VerdictPanel
          v-if="gate && (state.verdicts.last.value || state.unjudged.value)"
          class="under-gate"
          :entry="entry"
          :state="state"
          :read-only="!data.may_record"
          gate
        />
        <EntryPanel
          v-if="!gate"
          ref="panel"
          :key="check.key"
          :entry="entry"
          :check="check"
          :last="last"
          :posture="posture"
          :held="held"
          :read-only="!data.may_record"
          :walk-around="id"
          :sisters="sisters"
          :named="state.named"
          @note="strip?.write()"
          @picture="strip?.pick()"
        >
          <template #verdict
            ><VerdictPanel :entry="entry" :state="state" :read-only="!data.may_record" :gate="false"
          /></template>
          <PinnedPictures :check="check" :may-take-off="data.may_pin" @changed="state.load()" />
          <RowGrid
            :check="check"
            :positions="data.positions"
            :track-rows="data.machine.track_rows"
            :current="entry.position.value"
            :state="state"
            @go="(position) => entry.select(check.key, position)"
          />
          <PhotoStrip
            :id="id"
            ref="strip"
            :entry="entry"
            :photos="data.photos"
            :machine="data.machine.name"
            :named="state.named"
            :read-only="!data.may_record"
            :may-pin="data.may_pin"
            @pinned="state.load()"
            @photos="takePhotos"
            @done="panel?.focus()"
          />
        </EntryPanel>
        <ChainPanel
          v-if="!gate && check.together"
          :check="check"
          :checks="data.checks"
          :state="state"
          @go="(key) => entry.select(key)"
        />
      </div>
      <div class="right">
        <RecentVerdicts v-if="data.may_record" class="wide" :entry="entry" :state="state" />
        <PartsTray :parts="data.parts" :walk-around="id" />
        <p v-if="state.news.value" class="quiet" role="status">{{ state.news.value }}</p>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <div class="ways">
          <p class="quiet">
            {{ Math.round(data.plan.minutes) }} min of moving the machine<template
              v-if="data.plan.minutes_station_order !== null && data.plan.minutes_station_order - data.plan.minutes > 0.5"
              >, {{ Math.round(data.plan.minutes_station_order - data.plan.minutes) }} min less than station by
              station</template
            >.
          </p>
          <SelectButton
            v-if="hasRows"
            v-model="sweep"
            :options="SWEEPS"
            option-label="label"
            option-value="value"
            :allow-empty="false"
            aria-label="Sweep"
          />
          <Button
            severity="secondary"
            text
            :label="far ? 'Normal size (Alt V)' : 'Large, for two people (Alt V)'"
            :aria-pressed="far"
            @click="far = !far"
          />
          <RouterLink v-if="data.may_record" class="done" :to="{ name: 'summary', params: { id } }"
            >Summary and finish</RouterLink
          >
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped src="./WalkAround.css"></style>
