<script setup lang="ts">
/** Three ways to get the list, side by side; pick one, change it line by line, and order from it. */
import Button from '@/design/controls/button'
import ProgressBar from '@/design/controls/progressbar'
import { computed, onMounted, reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api, write, type Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import AskOnce from '@/app/AskOnce.vue'
import { newUuid } from '@/api/uuid'
import { counted, listed } from '@/app/counted'
import { useSession } from '@/app/session'
import PlanPicture from './PlanPicture.vue'
import { time, weekday, workOut, type Kind, type OnePlan, type PlanLine, type Step } from './plan'
import SupplyTabs from './SupplyTabs.vue'
import TableFile from './TableFile.vue'
import { useAttempt } from './useAttempt'

const router = useRouter()
const session = useSession()
const plan = ref<Schemas['SourcingOut'] | null>(null)
const needs = ref<Schemas['NeedsOut'] | null>(null)
const asked = ref<Schemas['AskedOut'][]>([])
const step = ref<Step | null>(null)
const kind = ref<Kind>('cheapest')
const pins = reactive(new Map<string, string>())
const keep = usePost()
const at = useAttempt('The plan could not be worked out.')
const buys = computed(() => session.me?.role === 'lead' || session.me?.role === 'parts')
const NAMES: Record<Kind, string> = { cheapest: 'Least cost', surest: 'Surest', quickest: 'Quickest' }

const found = computed(() => plan.value?.answer)
const question = computed(() => plan.value?.asked)
const chosen = computed<OnePlan | undefined>(() => found.value?.plans.find((one) => one.kind === kind.value))
const needed = computed(() => [...new Set((question.value?.lines ?? []).map((line) => line.need_by).filter((day): day is string => !!day))].sort())
/** The nearest lowest; whoever only sends stands above all. */
const lanes = computed(() => [...(plan.value?.suppliers ?? [])].sort((a, b) => Number(!a.hours) - Number(!b.hours) || a.distance_km - b.distance_km).map((one) => one.name))
const money = (amount: number): string => amount.toFixed(2)
/** Two plans that come to the same are one way with two names. */
const same = (one: OnePlan): Kind | undefined => found.value?.plans.find((other) => other.kind !== one.kind && JSON.stringify([other.trips, other.deliveries]) === JSON.stringify([one.trips, one.deliveries]) && found.value!.plans.indexOf(other) < found.value!.plans.indexOf(one))?.kind

async function read(): Promise<void> {
  const [latest, list] = await Promise.all([answer(api.GET('/api/supply/plans/latest') as never) as Promise<Schemas['SourcingOut'] | null>, answer(api.GET('/api/supply/list'))])
  needs.value = list
  show(latest)
}
function show(latest: Schemas['SourcingOut'] | null): void {
  plan.value = latest
  pins.clear()
  for (const pin of question.value?.pinned ?? []) pins.set(pin.line, `${pin.supplier}|${pin.way}`)
  if (latest?.ordered_kind) kind.value = latest.ordered_kind as Kind
}
const suppliers = ref<Schemas['SupplierOut'][]>([])
const from = ref(0)
const offers = (form: FormData): Promise<Schemas['TableReportOut']> =>
  write(() => api.POST('/api/supply/suppliers/{supplier_id}/offers-file', { params: { path: { supplier_id: from.value } }, body: form as never, bodySerializer: (body) => body as never }))
onMounted(() => at.run(async () => {
  await read()
  suppliers.value = await answer(api.GET('/api/supply/suppliers'))
  from.value = suppliers.value[0]?.id ?? 0
  if (buys.value && !plan.value && needs.value?.lines.some((line) => line.state === 'order')) await calculate()
}))

async function calculate(): Promise<void> {
  const uuid = newUuid()
  step.value = { what: 'the list', steps: 0, of: 1 }
  try {
    const pinned = [...pins].map(([line, way]) => ({ line, supplier: way.split('|')[0]!, way: way.split('|')[1]!, date: null }))
    await workOut(uuid, pinned, (one) => (step.value = one))
    show(await answer(api.GET('/api/supply/plans/{plan_id}', { params: { path: { plan_id: uuid } } })))
  } finally {
    step.value = null
  }
}
const again = (): Promise<boolean> => at.run(calculate)
const ask = (): Promise<boolean> => at.run(async () => void (asked.value = await write(() => api.POST('/api/supply/ask-desks'))))
const startAt = (now: string | null): Promise<boolean> => at.run(async () => {
  const { currency, labour_rate, km_cost, downtime_rate, late_cost_per_day, days_before } = needs.value!.terms
  needs.value = await write(() => api.POST('/api/supply/terms', { body: { currency, labour_rate, km_cost, downtime_rate, late_cost_per_day, days_before, now } }))
})
const order = (): Promise<boolean> => at.run(async () => {
  await keep('/api/supply/plans/{plan_id}/orders', { plan_id: plan.value!.uuid }, { kind: kind.value }, { what: 'Place the orders of the plan' })
  await router.push({ name: 'orders' })
})

/** The ways one line can come: what the supplier has is fetched, or sent by each of its deliveries. */
function ways(line: PlanLine): { value: string; label: string }[] {
  const wanted = question.value?.lines.find((one) => one.id === line.id)?.qty ?? line.quantity
  return (plan.value?.offers ?? []).filter((offer) => offer.number === line.id).flatMap((offer) => {
    const supplier = plan.value!.suppliers.find((one) => one.name === offer.supplier)
    const price = `${offer.unit_price} ${plan.value!.currency}${offer.p_stock < 1 ? `, ${Math.round(offer.p_stock * 100)} % sure` : ''}${offer.stock < wanted ? `, ${offer.stock} there` : ''}`
    const fetch = supplier?.hours && offer.stock >= wanted ? ['fetch'] : []
    return [...fetch, ...(offer.stock >= wanted || offer.restock_days !== null ? (supplier?.ways ?? []) : [])].map((way) => ({ value: `${offer.supplier}|${way}`, label: `${offer.supplier}, ${way === 'fetch' ? 'fetched' : way}: ${price}` }))
  })
}
function pin(line: PlanLine, value: string): void {
  if (value === `${line.supplier}|${line.way}` && !pins.has(line.id)) return
  pins.set(line.id, value)
}
const changed = computed(() => JSON.stringify([...pins].sort()) !== JSON.stringify((question.value?.pinned ?? []).map((one) => [one.line, `${one.supplier}|${one.way}`]).sort()))
const count = computed(() => (chosen.value ? chosen.value.trips.length + chosen.value.deliveries.length : 0))
/** Whom this tells at once, and whom somebody has to tell. */
const placing = computed(() => {
  const names = [...new Set([...(chosen.value?.trips ?? []), ...(chosen.value?.deliveries ?? [])].map((one) => one.supplier))]
  const desks = names.filter((name) => suppliers.value.find((one) => one.name === name)?.desk)
  const others = names.filter((name) => !desks.includes(name))
  return [
    desks.length ? `${listed(desks)} ${desks.length === 1 ? 'is' : 'are'} told at once, and that cannot be taken back here.` : '',
    others.length ? `${listed(others)}: you send it or call, and until then it can be taken back.` : '',
  ].filter(Boolean).join(' ')
})
const local = (iso: string): string => new Date(iso).toLocaleString('en-GB', { weekday: 'long', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit', timeZone: 'UTC' })
</script>

<template>
  <SupplyTabs />
  <section class="supply">
    <header class="tools">
      <div class="grow"><h1>Sourcing</h1>
        <p v-if="needs" class="quiet">Planned from {{ needs.terms.now ? local(needs.terms.now) : 'now' }}<template v-if="plan">; worked out by {{ plan.by }}</template> <button v-if="needs.terms.now && buys" type="button" class="link" @click="startAt(null)">Plan from now</button></p></div>
      <template v-if="buys">
        <Button severity="secondary" label="Ask the suppliers" :loading="at.busy && !step" @click="ask" />
        <Button :severity="plan && !changed && !plan.stale.length ? 'secondary' : undefined" :label="!plan ? 'Work it out' : pins.size ? `Work it out with ${pins.size} set by hand` : 'Work it out again'" :disabled="at.busy" @click="again" />
      </template>
    </header>
    <ul v-if="asked.length" class="asked" role="status"><li v-for="one in asked" :key="one.supplier" :class="{ problem: one.trouble }"><b>{{ one.supplier }}</b> {{ one.trouble ? `${one.trouble} What it said last is used.` : `has ${one.offers} of the list` }}</li></ul>
    <div v-if="step" role="status"><p>Working out {{ step.what }} …</p><ProgressBar :value="Math.round((100 * step.steps) / step.of)" :show-value="false" aria-label="Progress" /></div>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <p v-if="!plan && !at.busy && !at.problem" class="quiet">No plan yet.</p>
    <template v-if="plan && found && chosen && question">
      <div v-if="plan.stale.length" class="stale" role="alert"><b>The list has changed since.</b> {{ plan.stale.slice(0, 3).join('; ') }}<template v-if="plan.stale.length > 3"> and {{ plan.stale.length - 3 }} more</template>. Work it out again before ordering.</div>
      <div class="plans" role="radiogroup" aria-label="Plans">
        <label v-for="one in found.plans" :key="one.kind" class="card plan" :class="{ on: kind === one.kind }">
          <span class="tools"><input v-model="kind" type="radio" name="kind" :value="one.kind" :disabled="!!plan.ordered_kind" /> <b class="grow">{{ NAMES[one.kind] }}</b><span v-if="plan.ordered_kind === one.kind" class="quiet">ordered</span></span>
          <span class="total"><b>{{ money(one.cost.total) }}</b> {{ plan.currency }}</span>
          <span><b>{{ Math.round(one.p_all_in_time * 100) }} %</b> sure to have all in time, last {{ one.last_arrival ? weekday(one.last_arrival) : '–' }}</span>
          <PlanPicture :plan="one" :start="question.start" :suppliers="lanes" :needed="needed" />
          <span class="quiet">parts {{ money(one.cost.parts) }}, trips {{ money(one.cost.trips) }}, delivery {{ money(one.cost.delivery) }}, risk {{ money(one.cost.risk) }}<template v-if="one.cost.late">, late {{ money(one.cost.late) }}</template> {{ plan.currency }}</span>
          <span v-if="same(one)" class="quiet">The same as {{ NAMES[same(one)!].toLowerCase() }}.</span>
          <span v-if="!one.optimal" class="warn">Stopped early: at most {{ one.gap_pct.toFixed(1) }} % dearer than the best there is.</span>
        </label>
      </div>
      <div class="columns">
        <section class="card" aria-labelledby="why"><h2 id="why">Why</h2><ul class="why"><li v-for="one in plan.why" :key="one">{{ one }}</li></ul>
          <template v-if="found.impossible.length"><h2>Cannot be in time</h2><ul class="why"><li v-for="one in found.impossible" :key="one.id" class="warn">{{ plan.names[one.id] }} {{ one.id }}: {{ one.reason }}</li></ul></template></section>
        <section class="card" aria-labelledby="steps"><h2 id="steps">{{ NAMES[kind] }}, step by step</h2>
          <ol class="why">
            <li v-for="trip in chosen.trips" :key="trip.supplier + trip.date"><template v-if="trip.call_at"><b>{{ weekday(trip.date) }} {{ time(trip.call_at) }}</b> call {{ trip.supplier }}. </template><b>{{ trip.call_at ? (trip.only_if_there ? 'If they have it: ' : '') : weekday(trip.date) + ' ' }}{{ time(trip.leave) }}</b> drive to {{ trip.supplier }}, back {{ time(trip.back) }} with {{ counted(trip.lines.length, 'part') }}: {{ trip.lines.slice(0, 3).map((one) => plan!.names[one]).join(', ') }}{{ trip.lines.length > 3 ? ' …' : '' }}. {{ money(trip.cost) }} {{ plan.currency }}
              <p v-for="line in chosen.lines.filter((one) => trip.lines.includes(one.id) && one.if_missing)" :key="line.id" class="quiet">If {{ plan.names[line.id] }} is not there ({{ Math.round((1 - line.p_there) * 100) }} %): {{ line.if_missing!.supplier }}, {{ line.if_missing!.way === 'fetch' ? 'fetched' : line.if_missing!.way }}, here {{ weekday(line.if_missing!.arrives) }}, {{ money(line.if_missing!.extra_cost) }} {{ plan.currency }} more</p></li>
            <li v-for="one in chosen.deliveries" :key="one.supplier + one.way"><b>{{ weekday(one.arrives) }}</b> {{ one.supplier }} by {{ one.way }}, {{ counted(one.lines.length, 'part') }}, goes out {{ weekday(one.goes_out) }}. {{ money(one.cost) }} {{ plan.currency }}
              <p v-for="line in chosen.lines.filter((l) => one.lines.includes(l.id) && l.if_missing)" :key="line.id" class="quiet">If {{ plan.names[line.id] }} is not there ({{ Math.round((1 - line.p_there) * 100) }} %): {{ line.if_missing!.supplier }}, {{ line.if_missing!.way === 'fetch' ? 'fetched' : line.if_missing!.way }}, here {{ weekday(line.if_missing!.arrives) }}, {{ money(line.if_missing!.extra_cost) }} {{ plan.currency }} more</p></li>
          </ol>
        </section>
      </div>
      <div v-if="buys && !plan.ordered_kind" class="order"><AskOnce class="go" :label="`Place ${counted(count, 'order')} for ${money(chosen.cost.parts)} ${plan.currency}`" :question="placing" :yes="`Order for ${money(chosen.cost.parts)} ${plan.currency}`" :disabled="at.busy || changed || !!plan.stale.length || !count" @yes="order" /><span v-if="changed" class="quiet">Work it out with your changes first.</span></div>
      <p v-else-if="plan.ordered_kind"><RouterLink :to="{ name: 'orders' }">Ordered as {{ NAMES[plan.ordered_kind as Kind].toLowerCase() }}: to the orders</RouterLink></p>
      <div class="scroll"><table class="as-list">
        <thead><tr><th>Part</th><th class="n">Buy</th><th class="n">{{ plan.currency }}</th><th>From</th><th>Here</th><th class="n">In time</th></tr></thead>
        <tbody><tr v-for="line in chosen.lines" :key="line.id">
          <td><b>{{ plan.names[line.id] }}</b> <span class="quiet">{{ line.id }}</span><span v-if="line.status === 'scarce'" class="warn"> scarce</span></td><td class="n" data-label="Buy"><b>{{ line.quantity }}</b></td><td class="n" :data-label="plan.currency">{{ money(line.cost) }}</td>
          <td><select v-if="buys && !plan.ordered_kind" :value="pins.get(line.id) ?? `${line.supplier}|${line.way}`" :class="{ pinned: pins.has(line.id) }" :aria-label="`Where ${plan.names[line.id]} comes from`" @change="pin(line, ($event.target as HTMLSelectElement).value)"><option v-for="way in ways(line)" :key="way.value" :value="way.value">{{ way.label }}</option></select><template v-else>{{ line.supplier }}, {{ line.way }}</template> <button v-if="pins.has(line.id) && !plan.ordered_kind" type="button" class="link" :aria-label="`set by hand: free it, ${plan.names[line.id]}`" @click="pins.delete(line.id)">set by hand: free it</button></td>
          <td data-label="Here">{{ weekday(line.arrives) }}<span v-if="line.late_days" class="warn"> {{ line.late_days }} d late</span></td><td class="n" data-label="In time">{{ Math.round(line.p_in_time * 100) }} %</td>
        </tr></tbody>
      </table></div>
    </template>
    <section v-if="buys && suppliers.length" class="card" aria-labelledby="prices"><h2 id="prices">Prices from a file</h2>
      <p class="quiet">The parts list as CSV or XLSX, with price, stock and how sure filled in.</p>
      <label class="from">From <select v-model.number="from"><option v-for="one in suppliers" :key="one.id" :value="one.id">{{ one.name }}<template v-if="one.hours">, {{ one.hours }}</template></option></select></label>
      <TableFile :key="from" label="File" :send="offers" />
    </section>
  </section>
</template>

<style scoped>
.asked { display: flex; flex-wrap: wrap; gap: 4px 24px; }
.plans { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 12px; }
.plan { cursor: pointer; gap: 4px; } .plan.on { border-color: var(--accent); box-shadow: inset 0 0 0 2px var(--accent); }
.plan input { width: 20px; height: 20px; min-height: 0 !important; accent-color: var(--accent); }
.plan .tools { font-size: 1.1rem; } .total { font-size: 1.2rem; } .total b { font-size: 1.7rem; }
.columns { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); gap: 12px; align-items: start; }
.why { display: grid; gap: 6px; } .why li { padding-left: 12px; border-left: 3px solid var(--line); line-height: 1.35; }
.stale { padding: 8px 12px; border-left: 4px solid var(--due); background: var(--surface); }
.warn { color: var(--due); font-weight: 600; }
.order { display: flex; gap: 14px; align-items: center; position: sticky; bottom: 0; background: var(--paper); padding: 8px 0; z-index: 1; }
.go { min-height: 54px !important; font-size: 1.15rem; }
select { max-width: 100%; } .from { display: block; } select.pinned { border-color: var(--accent) !important; font-weight: 600; }
td { vertical-align: middle; }
@media (max-width: 1000px) { .plans, .columns { grid-template-columns: minmax(0, 1fr); } }
</style>
