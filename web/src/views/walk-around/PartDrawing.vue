<script setup lang="ts">
/** The drawing that belongs to a check, with the reading on it, and beside its sisters where they are compared. */
import { computed } from 'vue'
import type { Check, Place } from '@/api/client'
import BarLevel from '@/design/drawings/BarLevel.vue'
import ChainPitches from '@/design/drawings/ChainPitches.vue'
import ChopperEnd from '@/design/drawings/ChopperEnd.vue'
import DiscWear from '@/design/drawings/DiscWear.vue'
import EvenBars from '@/design/drawings/EvenBars.vue'
import GaugeWheelGap from '@/design/drawings/GaugeWheelGap.vue'
import HoldDowns, { type Clearance } from '@/design/drawings/HoldDowns.vue'
import KnifeRegister from '@/design/drawings/KnifeRegister.vue'
import OpenerContact from '@/design/drawings/OpenerContact.vue'
import ScaleReading from '@/design/drawings/ScaleReading.vue'
import SeedFurrow from '@/design/drawings/SeedFurrow.vue'
import TakeUpSlot from '@/design/drawings/TakeUpSlot.vue'

const props = defineProps<{ check: Check; place?: Place; sisters: { label: string; place: Place }[]; units: 'mm' | 'in' }>()

const figure = (name: string): string => props.check.figures.find((one) => one.name === name)?.shown ?? ''
const limit = (name: string): number => props.check.limits[name] ?? 0
const seen = computed(() => (props.place?.state === 'seen' && !props.place.ask ? props.place : undefined))
const fact = (name: string): number => seen.value?.facts[name] ?? 0
const reading = computed(() => seen.value?.facts.reading)
/** The figures of a reading with several, each with its unit. */
const each = computed(() => (seen.value?.short ?? '').split(' · ').map((one) => `${one.replace(/[-−]/, '')} ${props.units}`))
const marks = computed(() => {
  const { new: fresh, limit, low, high } = props.check.limits
  if (fresh !== undefined && limit !== undefined)
    return [{ value: fresh, text: `New ${figure('When new')}`, kind: 'new' as const }, { value: limit, text: `Limit ${figure('Renew at')}`, kind: 'limit' as const }]
  return [{ value: low ?? 0, text: `From ${figure('From')}`, kind: 'edge' as const }, { value: high ?? 0, text: `To ${figure('To')}`, kind: 'edge' as const }]
})

const stop = (value: number, text: string | undefined): string => (value === 0 ? 'on the middle' : `${text} ${value > 0 ? 'short' : 'past'}`)
const clearances = computed<Clearance[]>(() => props.sisters.map(({ label, place }) => ({ name: label, state: place.choice.replace('-', '_') as Clearance['state'] })))
const positions = computed(() => props.sisters.map(({ label, place }) => {
  const correction = place.facts.correction ?? 0
  const off = place.severity !== 'sound'
  return { name: label, value: place.facts.reading ?? 0, shown: place.short, correction: off && (props.check.unit !== 'mm' || props.units === 'mm') ? `${correction > 0 ? '+' : '−'}${Number(Math.abs(correction).toFixed(2))}` : '', worst: off }
}))
const target = computed(() => props.sisters.find(({ place }) => place.facts.target !== undefined)?.place.facts.target ?? reading.value ?? 0)
const dug = computed(() => props.sisters.map(({ label, place }) => ({
  name: label, digs: Object.entries(place.facts).filter(([name]) => name.startsWith('dig_')).map(([, mm]) => mm), shown: place.contact_shown.replace(/ (mm|in)$/, ''), track: false, off: !!place.facts.off,
})))
const blades = computed(() => props.sisters.filter(({ place }) => place.facts.mass !== undefined).map(({ label, place }) => ({ name: label, angle: place.facts.angle ?? 0, mass: place.facts.mass ?? 0, bad: place.action === 'replace' })))
const SCHOOLS = [['Now', 'unbalance', 'angle_now', 'Unbalance now'], ['Set', 'left_set', 'angle_set', 'Balanced set'], ['Pair', 'left_pair', 'angle_pair', 'Each with its opposite'], ['Single', 'left_single', 'angle_single', 'Only the bad ones']] as const
const residuals = computed(() => {
  const { facts, advice } = seen.value ?? { facts: {} as Record<string, number>, advice: null }
  if (!facts.permissible) return []
  return SCHOOLS.map(([name, left, angle, row]) => ({ name, angle: facts[angle] ?? null, share: (facts[left] ?? 0) / facts.permissible!, shown: advice?.rows.find((one) => one.name === row)?.shown.replace(/^.*leaves /, '').replace(/,.*/, '') ?? '' }))
})
</script>

<template>
  <DiscWear v-if="check.drawing === 'disc'" :reading="reading" :shown="seen?.shown" :fresh="limit('new')" :limit="limit('limit')" :fresh-shown="figure('When new')" :limit-shown="figure('Renew at')" />
  <OpenerContact v-else-if="check.drawing === 'contact'" :facts="seen?.facts" :shown="seen?.contact_shown" :low="limit('low')" :high="limit('high')" :band-shown="`${figure('From')} to ${figure('To')}`" />
  <GaugeWheelGap v-else-if="check.drawing === 'gauge-wheel-gap'" :reading="reading" :shown="seen?.shown" />
  <ChainPitches v-else-if="check.drawing === 'chain' && seen" :used="fact('used')" :shown="seen.shown" fresh-shown="new" :limit-shown="figure('Retire at')" />
  <TakeUpSlot v-else-if="check.drawing === 'take-up' && seen" :used="fact('reading')" :total="fact('limit')" :used-shown="`${each[0]} used`" :total-shown="each[1] ?? ''" :after="seen.facts.after" />
  <KnifeRegister v-else-if="check.drawing === 'register' && seen" :left="fact('left')" :right="fact('right')" :tolerance="limit('tolerance')" :left-shown="stop(fact('left'), each[0])" :right-shown="stop(fact('right'), each[1])" />
  <HoldDowns v-else-if="check.drawing === 'hold-downs' && sisters.length" :clearances="clearances" :low="limit('go')" :high="limit('no_go')" :low-shown="figure('Go')" :high-shown="figure('No-go')" :card="seen?.facts.card" />
  <EvenBars v-else-if="check.drawing === 'even' && sisters.length" :positions="positions" :target="target" :tolerance="limit('tolerance')" target-shown="" />
  <SeedFurrow v-else-if="check.drawing === 'furrow' && dug.length" :rows="dug" :target="limit('target')" :tolerance="limit('tolerance')" :target-shown="figure('Aim for')" />
  <BarLevel v-else-if="check.drawing === 'bar' && seen" :pitch="fact('pitch')" :shown="seen.reason.split(',')[0] ?? ''" :front-shown="each[0] ?? ''" :rear-shown="each[1] ?? ''" />
  <ChopperEnd v-else-if="check.drawing === 'chopper' && blades.length" :blades="blades" :residuals="residuals" :allowed-shown="seen?.advice?.rows.find((one) => one.name === 'Allowed')?.shown.replace(/ \(.*/, '') ?? ''" />
  <ScaleReading v-else-if="check.drawing === 'scale'" :reading="reading" :shown="seen?.shown" :marks="marks" />
</template>
