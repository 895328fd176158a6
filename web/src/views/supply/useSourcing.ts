/** What the screen of three plans knows and does: the newest plan, what was set by hand, asking, working out, ordering. */
import { computed, onMounted, reactive, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { asForm, tableTaken, type Step } from '@/api/steps'
import { newUuid } from '@/api/uuid'
import { listed } from '@/app/counted'
import { useOnward } from '@/app/useOnward'
import { useSession } from '@/app/session'
import { workOut, type Kind, type OnePlan, type PlanLine } from './plan'
import { inquire } from '@/app/inquiry'
import { useAttempt } from '@/app/useAttempt'

export function useSourcing() {
  const onward = useOnward()
  const session = useSession()
  const plan = ref<Schemas['SourcingOut'] | null>(null)
  const needs = ref<Schemas['NeedsOut'] | null>(null)
  const asked = ref<Schemas['ToldOut'][]>([])
  const step = ref<Step | null>(null)
  const kind = ref<Kind>('cheapest')
  const pins = reactive(new Map<string, string>())
  const keep = usePost()
  const at = useAttempt('The plan could not be worked out.')
  const buys = computed(() => session.may('order'))
  const NAMES: Record<Kind, string> = { cheapest: 'Least cost', surest: 'Surest', quickest: 'Quickest' }

  const found = computed(() => plan.value?.answer)
  const question = computed(() => plan.value?.asked)
  const chosen = computed<OnePlan | undefined>(() => found.value?.plans.find((one) => one.kind === kind.value))
  const needed = computed(() =>
    [...new Set((question.value?.lines ?? []).map((line) => line.need_by).filter((day): day is string => !!day))].sort(),
  )
  /** The nearest lowest; whoever only sends stands above all. */
  const lanes = computed(() =>
    [...(plan.value?.suppliers ?? [])]
      .sort((a, b) => Number(!a.hours) - Number(!b.hours) || a.distance_km - b.distance_km)
      .map((one) => one.name),
  )
  const money = (amount: number): string => amount.toFixed(2)
  /** Two plans that come to the same are one way with two names. */
  const same = (one: OnePlan): Kind | undefined =>
    found.value?.plans.find(
      (other) =>
        other.kind !== one.kind &&
        JSON.stringify([other.trips, other.deliveries]) === JSON.stringify([one.trips, one.deliveries]) &&
        found.value!.plans.indexOf(other) < found.value!.plans.indexOf(one),
    )?.kind

  async function read(): Promise<void> {
    const [latest, list] = await Promise.all([
      answer(api.GET('/api/supply/plans/latest') as never) as Promise<Schemas['SourcingOut'] | null>,
      answer(api.GET('/api/supply/list')),
    ])
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
  const offers = (form: FormData, told: (step: Step) => void): Promise<Schemas['TableReportOut']> =>
    tableTaken(
      () =>
        api.POST('/api/supply/suppliers/{supplier_id}/offers-file', {
          params: { path: { supplier_id: from.value } },
          ...asForm(form),
          parseAs: 'stream',
        }) as never,
      told,
    )
  onMounted(() =>
    at.run(async () => {
      await read()
      suppliers.value = await answer(api.GET('/api/supply/suppliers'))
      from.value = suppliers.value[0]?.id ?? 0
      if (buys.value && !plan.value && needs.value?.states.order) await calculate()
    }),
  )

  async function calculate(): Promise<void> {
    const uuid = newUuid()
    step.value = { what: 'the list', steps: 0, of: 1 }
    try {
      const pinned = [...pins].map(([line, way]) => ({
        line,
        supplier: way.split('|')[0]!,
        way: way.split('|')[1]!,
        date: null,
      }))
      await workOut(uuid, pinned, (one) => (step.value = one))
      show(await answer(api.GET('/api/supply/plans/{plan_id}', { params: { path: { plan_id: uuid } } })))
    } finally {
      step.value = null
    }
  }
  const again = (): Promise<boolean> => at.run(calculate)
  const ask = (): Promise<boolean> =>
    at.run(async () => void (asked.value = (await inquire((body) => api.POST('/api/supply/ask-desks', { body }))).told))
  const startAt = (now: string | null): Promise<boolean> =>
    at.run(async () => {
      const { currency, labour_rate, km_cost, downtime_rate, late_cost_per_day, days_before } = needs.value!.terms
      needs.value = await write(() =>
        api.POST('/api/supply/terms', {
          body: { currency, labour_rate, km_cost, downtime_rate, late_cost_per_day, days_before, now },
        }),
      )
    })
  const order = (): Promise<boolean> =>
    at.run(async () => {
      await keep(
        '/api/supply/plans/{plan_id}/orders',
        { plan_id: plan.value!.uuid },
        { kind: kind.value },
        { what: 'Place the orders of the plan' },
      )
      await onward({ name: 'orders' })
    })

  /** The ways one line can come: what the supplier has is fetched, or sent by each of its deliveries. */
  function ways(line: PlanLine): { value: string; label: string }[] {
    const wanted = question.value?.lines.find((one) => one.id === line.id)?.qty ?? line.quantity
    return (plan.value?.offers ?? [])
      .filter((offer) => offer.number === line.id)
      .flatMap((offer) => {
        const supplier = plan.value!.suppliers.find((one) => one.name === offer.supplier)
        const price = `${offer.unit_price} ${plan.value!.currency}${offer.p_stock < 1 ? `, ${Math.round(offer.p_stock * 100)} % sure` : ''}${offer.stock < wanted ? `, ${offer.stock} there` : ''}`
        const fetch = supplier?.hours && offer.stock >= wanted ? ['fetch'] : []
        return [...fetch, ...(offer.stock >= wanted || offer.restock_days !== null ? (supplier?.ways ?? []) : [])].map(
          (way) => ({
            value: `${offer.supplier}|${way}`,
            label: `${offer.supplier}, ${way === 'fetch' ? 'fetched' : way}: ${price}`,
          }),
        )
      })
  }
  function pin(line: PlanLine, value: string): void {
    if (value === `${line.supplier}|${line.way}` && !pins.has(line.id)) return
    pins.set(line.id, value)
  }
  const changed = computed(
    () =>
      JSON.stringify([...pins].sort()) !==
      JSON.stringify((question.value?.pinned ?? []).map((one) => [one.line, `${one.supplier}|${one.way}`]).sort()),
  )
  const count = computed(() => (chosen.value ? chosen.value.trips.length + chosen.value.deliveries.length : 0))
  /** Whom this tells at once, and whom somebody has to tell. */
  const placing = computed(() => {
    const names = [...new Set([...(chosen.value?.trips ?? []), ...(chosen.value?.deliveries ?? [])].map((one) => one.supplier))]
    const desks = names.filter((name) => suppliers.value.find((one) => one.name === name)?.desk)
    const others = names.filter((name) => !desks.includes(name))
    return [
      desks.length
        ? `${listed(desks)} ${desks.length === 1 ? 'is' : 'are'} told at once, and that cannot be taken back here.`
        : '',
      others.length ? `${listed(others)}: you send it or call, and until then it can be taken back.` : '',
    ]
      .filter(Boolean)
      .join(' ')
  })

  return {
    plan,
    needs,
    asked,
    step,
    kind,
    pins,
    at,
    buys,
    NAMES,
    found,
    question,
    chosen,
    needed,
    lanes,
    money,
    same,
    suppliers,
    from,
    offers,
    again,
    ask,
    startAt,
    order,
    ways,
    pin,
    changed,
    count,
    placing,
  }
}
