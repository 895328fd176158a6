<script setup lang="ts">
/** Who sells what the shop needs: how far, when open, how it is sent; and the rates the shop counts with. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, onMounted, ref } from 'vue'
import { newUuid } from '@/api/uuid'
import { answer, api, write, type Schemas } from '@/api/client'
import { counted } from '@/app/counted'
import { figureIfTyped, wholeIfTyped } from '@/app/figures'
import Field from '@/app/Field.vue'
import { useSession } from '@/app/session'
import RatesForm from './RatesForm.vue'
import SupplyTabs from './SupplyTabs.vue'
import { useAttempt } from '@/app/useAttempt'

type Supplier = Schemas['SupplierOut']
interface Form {
  id: number
  /** Of a new one: sent again after a lost answer, it is the same. */
  uuid: string | null
  name: string
  email: string
  distance_km: string
  travel_min: string
  counter_min: string
  call_min: string
  hours: string
  closed: string
  deliveries: { name: string; lead_days: string; working: boolean; cutoff: string; price: string }[]
}

const session = useSession()
const suppliers = ref<Supplier[]>([])
const terms = ref<Schemas['TermsOut'] | null>(null)
const form = ref<Form | null>(null)
const at = useAttempt('The suppliers could not be read.')
const saving = useAttempt('It could not be saved.')
const buys = computed(() => session.may('order'))
const LONGEST: Partial<Record<keyof Form, number>> = { name: 60, email: 120, hours: 300, closed: 600 }
const FIELDS = [
  ['name', 'Name'],
  ['email', 'E-mail'],
  ['distance_km', 'Distance, km'],
  ['travel_min', 'Travel, min'],
  ['counter_min', 'At the counter, min'],
  ['call_min', 'A call, min (empty: no telephone)'],
  ['hours', 'Open'],
  ['closed', 'Closed on'],
] as const
const SUCH_AS: Record<string, string> = { hours: 'Mon–Fri 07:30–17:00, Sat 08:00–12:00', closed: '2026-12-24, 2026-12-31' }

onMounted(() =>
  at.read(async () => {
    const both = [answer(api.GET('/api/supply/suppliers')), answer(api.GET('/api/supply/list'))] as const
    const [found, list] = await Promise.all(both)
    suppliers.value = found
    terms.value = list.terms
  }),
)
function edit(one?: Supplier): void {
  form.value = one
    ? {
        ...one,
        uuid: null,
        distance_km: String(one.distance_km),
        travel_min: String(one.travel_min),
        counter_min: String(one.counter_min),
        call_min: one.call_min === null ? '' : String(one.call_min),
        deliveries: one.deliveries.map((way) => ({
          name: way.name,
          lead_days: String(way.lead_days),
          working: way.working,
          cutoff: way.cutoff ?? '',
          price: String(way.price),
        })),
      }
    : {
        id: 0,
        uuid: newUuid(),
        name: '',
        email: '',
        distance_km: '',
        travel_min: '',
        counter_min: '15',
        call_min: '',
        hours: 'Mon–Fri 08:00–17:00',
        closed: '',
        deliveries: [],
      }
  saving.problem = ''
}
async function keep(): Promise<void> {
  const made = form.value!
  const done = await saving.run(async () => {
    const body = {
      id: made.id,
      uuid: made.uuid,
      name: made.name,
      email: made.email,
      hours: made.hours,
      closed: made.closed,
      distance_km: figureIfTyped(made.distance_km, 'distance_km') ?? 0,
      travel_min: figureIfTyped(made.travel_min, 'travel_min') ?? 0,
      counter_min: figureIfTyped(made.counter_min, 'counter_min') ?? 0,
      call_min: figureIfTyped(made.call_min, 'call_min'),
      deliveries: made.deliveries.map((way, i) => ({
        name: way.name,
        lead_days: wholeIfTyped(way.lead_days, `deliveries.${i}.lead_days`) ?? 0,
        working: way.working,
        cutoff: way.cutoff.trim() || null,
        price: figureIfTyped(way.price, `deliveries.${i}.price`) ?? 0,
      })),
    }
    suppliers.value = await write(() => api.POST('/api/supply/suppliers', { body }))
  })
  if (done) form.value = null
}
const sent = (one: Supplier): string =>
  one.deliveries
    .map(
      (way) =>
        `${way.name} in ${counted(way.lead_days, way.working ? 'working day' : 'day')}${way.cutoff ? ` if ordered by ${way.cutoff}` : ''}, ${way.price.toFixed(2)} ${terms.value?.currency ?? ''}`,
    )
    .join('; ')
</script>

<template>
  <SupplyTabs />
  <section class="desk">
    <header class="tools">
      <h1 class="grow">Suppliers and rates</h1>
      <Button v-if="buys && !form" severity="secondary" label="Enter a supplier" @click="edit()" />
    </header>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <form v-if="form" class="card form" aria-label="Supplier" @submit.prevent="keep">
      <Field v-for="[key, label] in FIELDS" :key="key" :label="label" :name="key" :at="saving"
        ><InputText v-model="form[key]" :maxlength="LONGEST[key] ?? 40" :placeholder="SUCH_AS[key]"
      /></Field>
      <div class="ways">
        <b>Sends by</b>
        <p v-for="(way, i) in form.deliveries" :key="i" class="tools">
          <InputText
            v-model="way.name"
            maxlength="20"
            placeholder="van"
            :aria-label="`Name of delivery ${i + 1}`"
            class="short"
          />
          in
          <InputText
            v-model="way.lead_days"
            inputmode="numeric"
            :invalid="saving.field === `deliveries.${i}.lead_days`"
            :aria-label="`Days of delivery ${i + 1}`"
            class="tiny"
          />
          days
          <label><input v-model="way.working" type="checkbox" /> Monday to Friday</label> ordered by
          <InputText
            v-model="way.cutoff"
            maxlength="5"
            placeholder="15:00"
            :aria-label="`Ordered by, delivery ${i + 1}`"
            class="short"
          />
          costs
          <InputText
            v-model="way.price"
            inputmode="decimal"
            :invalid="saving.field === `deliveries.${i}.price`"
            :aria-label="`Price of delivery ${i + 1}`"
            class="short"
          />
          {{ terms?.currency }}
          <button type="button" class="link" @click="form.deliveries.splice(i, 1)">Remove</button>
        </p>
        <button
          type="button"
          class="link"
          @click="form.deliveries.push({ name: '', lead_days: '1', working: true, cutoff: '', price: '0' })"
        >
          Add a delivery
        </button>
      </div>
      <p v-if="saving.problem && !FIELDS.some(([key]) => key === saving.field)" class="problem wide" role="alert">
        {{ saving.problem }}
      </p>
      <div class="tools wide">
        <Button type="submit" label="Save" :disabled="saving.busy" /><Button
          text
          severity="secondary"
          label="Cancel"
          data-out
          @click="form = null"
        />
      </div>
    </form>
    <ul class="list">
      <li v-for="one in suppliers" :key="one.id" class="card">
        <h2>{{ one.name }}</h2>
        <p>
          {{ one.hours || 'Nobody can come: they only send' }}<template v-if="one.closed">; closed {{ one.closed }}</template>
        </p>
        <p class="quiet">
          <template v-if="one.hours"
            >{{ one.distance_km }} km, {{ one.travel_min }} min,
            {{ one.call_min === null ? 'no telephone' : `a call takes ${one.call_min} min` }}. </template
          ><template v-if="one.deliveries.length">Sends: {{ sent(one) }}. </template
          >{{ one.desk ? 'Answers at the desk.' : 'Ordered by hand.' }} {{ one.email }}
        </p>
        <button v-if="buys" type="button" class="link" :aria-label="`Change ${one.name}`" @click="edit(one)">Change</button>
      </li>
    </ul>
    <RatesForm v-if="terms" v-model="terms" />
  </section>
</template>

<style scoped>
.form {
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 12px 16px;
}
.wide,
.ways {
  grid-column: 1 / -1;
}
.list {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
  gap: 12px;
}
.list .link {
  justify-self: start;
  padding: 0;
}
.short {
  width: 110px;
}
.tiny {
  width: 70px;
}
</style>
