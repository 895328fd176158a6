<script setup lang="ts">
/** The drawing of a subject, made from the calculations of its answer. */
import { computed } from 'vue'
import type { operations } from '@/api/schema'
import BarLevel from '@/design/drawings/BarLevel.vue'
import BeltSheave from '@/design/drawings/BeltSheave.vue'
import CellRing from '@/design/drawings/CellRing.vue'
import ChainPitches from '@/design/drawings/ChainPitches.vue'
import ChopperEnd from '@/design/drawings/ChopperEnd.vue'
import DiscWear from '@/design/drawings/DiscWear.vue'
import EvenBars from '@/design/drawings/EvenBars.vue'
import HoldDowns, { type Clearance } from '@/design/drawings/HoldDowns.vue'
import KnifeRegister from '@/design/drawings/KnifeRegister.vue'
import MoisturePairs from '@/design/drawings/MoisturePairs.vue'
import NowOrLater from '@/design/drawings/NowOrLater.vue'
import TruckTray from '@/design/drawings/TruckTray.vue'
import WearFan from '@/design/drawings/WearFan.vue'
import OpenerContact from '@/design/drawings/OpenerContact.vue'
import PlateCells from '@/design/drawings/PlateCells.vue'
import ReelPath from '@/design/drawings/ReelPath.vue'
import RowMetre from '@/design/drawings/RowMetre.vue'
import RulerLength from '@/design/drawings/RulerLength.vue'
import ScaleReading from '@/design/drawings/ScaleReading.vue'
import SeedFurrow from '@/design/drawings/SeedFurrow.vue'
import SeedStrip from '@/design/drawings/SeedStrip.vue'
import ServiceLine from '@/design/drawings/ServiceLine.vue'
import SieveHalves from '@/design/drawings/SieveHalves.vue'
import TakeUpSlot from '@/design/drawings/TakeUpSlot.vue'
import YieldLoads from '@/design/drawings/YieldLoads.vue'
import type { Sheet } from './useBench'

type Name = { [K in keyof operations]: K extends `calc_${infer N}` ? N : never }[keyof operations]
type Given<N extends Name> = operations[`calc_${N}`]['requestBody'] extends { content: { 'application/json': infer G } } ? G : never
type Result<N extends Name> = operations[`calc_${N}`]['responses'][200]['content']['application/json']

const props = defineProps<{ drawing: string; sheet: Sheet }>()
const label = (name: string): string => props.sheet.labels[name] ?? ''
const line = (name: string): string => props.sheet.lines.find((one) => one.name === name)?.shown ?? ''
function run<N extends Name>(name: N): { given: Given<N>; result: Result<N> } {
  return props.sheet.runs[name] as unknown as { given: Given<N>; result: Result<N> }
}

const opener = computed(() => {
  const { given, result } = run('opener_contact')
  const facts = { diameter: given.disc_diameter_mm, overlap: result.overlap_mm, equivalent: result.equivalent_span_mm, band_feeler: given.band.feeler_mm }
  return { facts, low: given.band.low_mm, high: given.band.high_mm, bands: result.band_equivalents.map((one) => ({ name: one.feeler_mm.toFixed(2).slice(1), low: one.low_mm, high: one.high_mm })) }
})
const clearances = computed<Clearance[]>(() => {
  const { given, result } = run('hold_down')
  const state = (name: string): Clearance['state'] => (result.names.too_tight.includes(name) ? 'too_tight' : result.names.too_wide.includes(name) ? 'too_wide' : 'right')
  return given.results.map((one) => ({ name: one.name, state: state(one.name), measured: 'measured_mm' in one ? one.measured_mm : undefined }))
})
const SCHOOLS: Record<string, string> = { set: 'Set', pair: 'Pair', single: 'Single' }
const chopper = computed(() => {
  const { given, result } = run('rotor_balance')
  const drawn = props.sheet.drawn as { left: { name: string; angle_deg: number | null; unbalance_g_mm: number }[]; bad: string[] }
  const now = { name: 'Now', angle: result.heavy_angle_deg, share: result.unbalance_g_mm / result.permissible_g_mm, shown: label('now') }
  return {
    blades: given.positions.map((one) => ({ name: one.name, angle: one.angle_deg, mass: one.mass_g, bad: drawn.bad.includes(one.name) })),
    residuals: [now, ...drawn.left.map((one) => ({ name: SCHOOLS[one.name] ?? one.name, angle: one.angle_deg, share: one.unbalance_g_mm / result.permissible_g_mm, shown: label(one.name) }))],
    recommended: result.state === 'within' && !drawn.bad.length ? 'Now' : SCHOOLS[result.recommended ?? ''],
  }
})
const furrow = computed(() => {
  const { given, result } = run('depth_check')
  const track = (given.track_rows ?? []).map(String)
  return Object.entries(given.rows).map(([name, digs]) => ({ name, digs, shown: label(name), track: track.includes(name), off: result.flagged.includes(name) || result.unsure.includes(name) }))
})
const fan = computed(() => {
  const { given, result } = run('wear_forecast')
  return { readings: given.readings, suspect: result.suspect, fresh: given.new, limit: given.limit, at: given.use_next, value: result.value, low: result.low, high: result.high, rate: result.rate }
})
const renew = computed(() => {
  const { result } = run('replace_decision')
  return [{ name: 'This part', now: result.cost_now, later: result.cost_wait, advice: ({ replace: 'renew', wait: 'leave', either: 'either' } as const)[result.advice] }]
})
const cells = computed(() => run('plate_fit').given.plates.map((one) => ({ name: one.name, size: one.cell_mm, shown: label(one.name) })))
const sieves = computed(() => {
  const { given, result } = run('sieve_zero')
  return Object.entries(given.sieves).map(([name, one]) => ({ name, left: one.gap_mm.left, right: one.gap_mm.right, leftShown: label(`${name}.left`), rightShown: label(`${name}.right`), shown: label(`${name}.shown`), even: result.sieves[name]?.sides === 'even' }))
})
const positions = computed(() => {
  const { given, result } = run('even')
  return Object.entries(given.readings).map(([name, value]) => ({ name, value, shown: label(name), correction: line(name).split(',')[0]!, worst: result.state !== 'even' && result.worst.includes(name) }))
})
const loads = computed(() => {
  const { given, result } = run('yield_factor')
  return given.loads.map((one, i) => ({ machine: one.machine_kg, scale: one.scale_kg, counts: !result.rejected.some((left) => left.index === i) }))
})
const stretch = computed(() => {
  const { given, result } = run('chain_stretch')
  const measured = label('measured')
  return { used: result.used, plusMinus: result.plus_minus_pct / (given.limit_pct ?? 3), shown: measured || label('stretch'), fresh: label('new') || 'new', limit: label('end') || `limit ${label('limit')}` }
})
</script>

<template>
  <OpenerContact v-if="drawing === 'opener'" v-bind="opener" :band-shown="label('wanted')" :shown="label('reading')" :by="label('by').replace(/ \(.*/, '')" />
  <BarLevel v-else-if="drawing === 'bar'" :pitch="run('bar_level').result.pitch_deg" :shown="line('Pitch')" :front-shown="label('front')" :rear-shown="label('rear')" />
  <SeedFurrow v-else-if="drawing === 'depth'" :rows="furrow" :target="run('depth_check').given.target_mm" :tolerance="run('depth_check').given.tolerance_mm" :target-shown="label('target')" />
  <SeedStrip v-else-if="drawing === 'spacing'" :spacings="run('seed_spacing').given.spacings_mm" :nominal="run('seed_spacing').given.nominal_mm" :nominal-shown="label('nominal')" :half-shown="label('half')" :more-shown="label('more')" />
  <CellRing v-else-if="drawing === 'stand'" :skip-pct="run('stand_run').result.skip_pct" :double-pct="run('stand_run').result.double_pct" :shown="sheet.answer.replace(' singled', '')" :skip-shown="line('Skips')" :double-shown="line('Doubles')" />
  <RowMetre v-else-if="drawing === 'rate'" :spacing="run('seed_rate').result.spacing_mm" :cells="run('seed_rate').given.cells" :shown="label('spacing')" :disc-shown="label('disc')" />
  <PlateCells v-else-if="drawing === 'plate'" :cells="cells" :largest="run('plate_fit').result.largest_mm" :needed="run('plate_fit').result.largest_mm + run('plate_fit').given.clearance_mm" :chosen="run('plate_fit').result.plate" :largest-shown="label('largest')" :needed-shown="label('needed')" />
  <ChainPitches v-else-if="drawing === 'chain'" :used="stretch.used" :plus-minus="stretch.plusMinus" :shown="stretch.shown" :fresh-shown="stretch.fresh" :limit-shown="stretch.limit" />
  <TakeUpSlot v-else-if="drawing === 'take-up'" :used="run('take_up').given.used_mm" :total="run('take_up').given.travel_mm" :used-shown="`${label('used')} used`" :total-shown="label('travel')" :after="run('take_up').result.can_remove ? run('take_up').result.used_after_mm : undefined" :after-shown="`${label('after')} used`" />
  <BeltSheave v-else-if="drawing === 'belt'" :reading="run('window').given.reading" :low="run('window').given.low" :high="run('window').given.high" :shown="label('reading')" :low-shown="label('low')" :high-shown="label('high')" />
  <KnifeRegister v-else-if="drawing === 'register'" :left="run('knife_register').given.short_left_mm" :right="run('knife_register').given.short_right_mm" :tolerance="run('knife_register').given.tolerance_mm" :left-shown="label('left')" :right-shown="label('right')" />
  <HoldDowns v-else-if="drawing === 'hold-downs'" :clearances="clearances" :low="run('hold_down').given.low_mm" :high="run('hold_down').given.high_mm" :card="run('hold_down').given.card_mm ?? undefined" :low-shown="label('low')" :high-shown="label('high')" />
  <ChopperEnd v-else-if="drawing === 'chopper'" v-bind="chopper" :allowed-shown="label('allowed')" />
  <ReelPath v-else-if="drawing === 'reel'" :index="run('reel_speed').given.index ?? 1.15" :shown="label('rpm')" :index-shown="label('index')" />
  <SieveHalves v-else-if="drawing === 'sieves'" :sieves="sieves" />
  <MoisturePairs v-else-if="drawing === 'moisture'" :pairs="run('moisture_offset').given.pairs.map((one) => ({ shown: one.shown_pct, reference: one.reference_pct }))" :offset-shown="label('offset')" :stored-shown="label('stored')" />
  <YieldLoads v-else-if="drawing === 'yield'" :loads="loads" :least="run('yield_factor').given.min_load_kg ?? 1360" :shown="sheet.answer" />
  <DiscWear v-else-if="drawing === 'wear'" :reading="run('wear_used').given.reading" :shown="label('reading')" :fresh="run('wear_used').given.new" :limit="run('wear_used').given.limit" :fresh-shown="label('new').replace('New ', '')" :limit-shown="label('limit').replace('Limit ', '')" />
  <ScaleReading v-else-if="drawing === 'window'" :reading="run('window').given.reading" :shown="label('reading')" :marks="[{ value: run('window').given.low, text: label('low'), kind: 'edge' }, { value: run('window').given.high, text: label('high'), kind: 'edge' }]" />
  <EvenBars v-else-if="drawing === 'even'" :positions="positions" :target="run('even').result.target ?? 0" :tolerance="run('even').given.tolerance" :target-shown="label('target')" />
  <RulerLength v-else-if="drawing === 'length'" :value="run('parse_length').result.value_mm" :mm-shown="label('mm')" :in-shown="label('in')" />
  <WearFan v-else-if="drawing === 'fan'" v-bind="fan" />
  <NowOrLater v-else-if="drawing === 'renew'" :parts="renew" />
  <TruckTray v-else-if="drawing === 'stock'" :carry="run('truck_stock').result.carry" :expected="run('truck_stock').result.expected" />
  <NowOrLater v-else-if="drawing === 'apart'" :parts="run('while_apart').result.parts.map((one) => ({ name: one.name, now: one.cost_now, later: one.cost_later, advice: one.advice }))" />
  <ServiceLine v-else-if="drawing === 'services'" :services="run('services_due').result.services.map((one) => ({ name: one.name, state: one.state, days: one.left_days, hours: one.left_h }))" :soon="run('services_due').given.soon_days ?? 14" />
</template>
