<script setup lang="ts">
/** Orders and what came of them; what comes in is received by scanning or typing its number. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, nextTick, onBeforeUnmount, onMounted, reactive, ref, watch } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import AskOnce from '@/app/AskOnce.vue'
import { counted } from '@/app/counted'
import Pager from '@/app/Pager.vue'
import ScanButton from '@/app/ScanButton.vue'
import { useSession } from '@/app/session'
import { date } from '@/app/words'
import { BY_WORD, WAYS } from './ways'
import OrderMark from './OrderMark.vue'
import OrderSending from './OrderSending.vue'
import SupplyTabs from './SupplyTabs.vue'
import TableFile from '@/app/TableFile.vue'
import { useAsked } from '@/app/useAsked'
import { wholeIfTyped } from '@/app/figures'
import { useAttempt } from '@/app/useAttempt'

type Order = Schemas['OrderOut']
const session = useSession()
const data = ref<Schemas['OrdersOut'] | null>(null)
const desk = ref<Schemas['DeskOut'] | null>(null)
const at = useAttempt('The orders could not be read.')
const buys = computed(() => session.may('order'))
const coming = reactive({ number: '', quantity: '', uuid: newUuid(), said: '', last: '' })
const letter = reactive({ order: '', text: '', subject: '', to: '' })
const field = ref<HTMLElement | null>(null)
const keep = usePost()
const receiving = useAttempt('It could not be received.')

const { asked, query } = useAsked('search', 'state', 'supplier', 'order')
async function list(): Promise<void> {
  data.value = await answer(api.GET('/api/supply/orders', { params: { query: query.value } }))
}
async function load(): Promise<void> {
  await list()
  desk.value = await answer(api.GET('/api/supply/desk'))
}
onMounted(() => at.read(load))
watch(query, () => at.read(list))
/** What is asked of somebody outside is done beside: it is looked at until they have answered. */
const LOOK_MS = 1200
let looking = 0
let here = true
watch(() => (data.value?.orders.some((one) => one.under_way) ? data.value.orders : null), lookAgain)
function lookAgain(): void {
  clearTimeout(looking)
  if (here && data.value?.orders.some((one) => one.under_way)) looking = window.setTimeout(look, LOOK_MS)
}
async function look(): Promise<void> {
  const waiting = data.value?.orders.filter((one) => one.under_way) ?? []
  await at.read(async () => {
    for (const { uuid } of waiting)
      put(await answer(api.GET('/api/supply/orders/{order_id}', { params: { path: { order_id: uuid } } })))
    desk.value = await answer(api.GET('/api/supply/desk'))
  })
  lookAgain() // also after an answer that was lost, which is said
}
onBeforeUnmount(() => {
  here = false
  clearTimeout(looking)
})
/** What was done with an order is seen at its place, whatever the list was asked for. */
function put(changed: Order): void {
  if (data.value) data.value.orders = data.value.orders.map((one) => (one.uuid === changed.uuid ? changed : one))
}

/** A scanner types the number and presses Enter; so does a person. The same press twice is one receipt. */
async function receive(): Promise<void> {
  const done = await receiving.run(async () => {
    const quantity = wholeIfTyped(coming.quantity, 'quantity')
    const got = await keep(
      '/api/supply/receive',
      undefined,
      { uuid: coming.uuid, number: coming.number, quantity },
      { what: `Received: ${coming.number}`, shown: coming.quantity },
    )
    coming.said = `${got.received} × ${got.name} received${got.bin ? `, into bin ${got.bin}` : ''}${got.to_come ? `; ${got.to_come} still to come` : '; nothing more to come'}`
    Object.assign(coming, { number: '', quantity: '', uuid: newUuid(), last: got.uuid })
  })
  if (!done) coming.said = coming.last = ''
  if (receiving.field !== 'quantity') void nextTick(() => field.value?.querySelector<HTMLInputElement>('input')?.select())
  // After the hand is back in the field: the next number may be typed already.
  void at.read(list)
}
function scanned(number: string): void {
  coming.number = number
  void receive()
}
/** What came in was something else: it is still to come. */
const sendAway = (): Promise<boolean> =>
  receiving.run(async () => {
    await write(() =>
      api.POST('/api/supply/movements/{movement_id}/take-back', { params: { path: { movement_id: coming.last } } }),
    )
    Object.assign(coming, { said: 'Taken back: it is still to come.', last: '' })
    await load()
  })
const takeBack = (order: Order): Promise<boolean> =>
  at.run(async () =>
    put(await write(() => api.POST('/api/supply/orders/{order_id}/take-back', { params: { path: { order_id: order.uuid } } }))),
  )
const post = (order: Order, way: 'send' | 'by-hand'): Promise<boolean> =>
  at.run(async () => {
    const about = { what: way === 'send' ? 'Send the order' : 'Ordered by hand', shown: order.supplier }
    put(await keep(`/api/supply/orders/{order_id}/${way}`, { order_id: order.uuid }, undefined, about))
    desk.value = await answer(api.GET('/api/supply/desk'))
  })
const drop = (order: Order, number: string): Promise<boolean> =>
  at.run(async () =>
    put(
      await write(() =>
        api.POST('/api/supply/orders/{order_id}/drop-rest', { params: { path: { order_id: order.uuid } }, body: { number } }),
      ),
    ),
  )
const read = (order: Order): Promise<boolean> =>
  at.run(
    async () =>
      void Object.assign(letter, {
        order: order.uuid,
        ...(await answer(api.GET('/api/supply/orders/{order_id}/mail', { params: { path: { order_id: order.uuid } } }))),
      }),
  )
const mail = (order: Order): Promise<boolean> =>
  at.run(async () => {
    put(await write(() => api.POST('/api/supply/orders/{order_id}/mail', { params: { path: { order_id: order.uuid } } })))
    letter.order = ''
  })
const answerFile = (order: Order, form: FormData): Promise<Schemas['TableReportOut']> =>
  write(() =>
    api.POST('/api/supply/orders/{order_id}/answer-file', {
      params: { path: { order_id: order.uuid } },
      body: form as never,
      bodySerializer: (body) => body as never,
    }),
  )
const behave = (mode: string): Promise<boolean> =>
  at.run(async () => void (desk.value = await write(() => api.POST('/api/supply/desk', { body: { mode: mode as 'normal' } }))))
const MODES = [
  ['normal', 'answers'],
  ['slow', 'is too slow'],
  ['deaf', 'takes orders, answers get lost'],
  ['down', 'is down'],
]
const shown = computed(() => data.value?.orders ?? [])
const narrowed = computed(() => !!(asked.search || asked.state || asked.supplier))
</script>

<template>
  <SupplyTabs />
  <section class="desk">
    <header class="tools">
      <h1 class="grow">Orders</h1>
      <p v-if="desk?.connected" class="line" :class="{ away: !desk.answers }" role="status">
        <b>{{ desk.answers ? 'The suppliers’ desk answers' : 'The suppliers’ desk does not answer' }}</b>
      </p>
      <label v-if="desk?.simulated && buys" class="quiet"
        >Simulated desk
        <select aria-label="How the simulated desk behaves" @change="behave(($event.target as HTMLSelectElement).value)">
          <option v-for="[mode, words] in MODES" :key="mode" :value="mode">{{ words }}</option>
        </select></label
      >
    </header>
    <form ref="field" class="card receive" data-passing @submit.prevent="receive">
      <label for="came">What came in</label>
      <InputText
        id="came"
        v-model="coming.number"
        maxlength="40"
        v-focus
        placeholder="Scan or type a part number"
        autocomplete="off"
        :invalid="receiving.field === 'number'"
      />
      <ScanButton label="what came in" @scanned="scanned" />
      <InputText
        v-model="coming.quantity"
        class="count"
        inputmode="numeric"
        placeholder="all"
        aria-label="Pieces; empty takes all that is to come"
        :invalid="receiving.field === 'quantity'"
      />
      <Button type="submit" label="Receive" :disabled="!coming.number.trim() || receiving.busy" />
      <p v-if="receiving.problem" class="problem" role="alert">{{ receiving.problem }}</p>
      <p v-else-if="coming.said" class="said" role="status">
        {{ coming.said }}
        <button v-if="coming.last" type="button" class="link" :disabled="receiving.busy" @click="sendAway">Take back</button>
      </p>
    </form>
    <p v-if="at.problem" class="trouble" role="alert">
      {{ at.problem }} <Button v-if="!data" label="Try again" severity="secondary" @click="at.read(load)" />
    </p>
    <div
      v-if="data && (data.suppliers.length > 1 || data.page.total > 3 || narrowed)"
      class="asks"
      role="search"
      aria-label="Orders"
    >
      <InputText v-model="asked.search" aria-label="Find an order" placeholder="Part, number, reference" maxlength="80" />
      <select v-model="asked.state" aria-label="State">
        <option value="">Every state</option>
        <option v-for="(name, key) in data.states" :key="key" :value="key">{{ name }}</option>
      </select>
      <select v-model="asked.supplier" aria-label="Supplier">
        <option value="">Every supplier</option>
        <option v-for="one in data.suppliers" :key="one.id" :value="String(one.id)">{{ one.name }}</option>
      </select>
      <select v-model="asked.order" aria-label="Order of the list">
        <option value="">Most pressing first</option>
        <option value="newest">Newest first</option>
        <option value="day">By the day it is here</option>
      </select>
      <span class="quiet" role="status">{{ counted(data.page.total, 'order') }}</span>
    </div>
    <p v-if="data && !shown.length && narrowed" class="quiet">No order is like that.</p>
    <p v-else-if="data && !shown.length" class="quiet">
      Nothing is ordered yet. <RouterLink :to="{ name: 'sourcing' }">Plan where to get it</RouterLink>
    </p>
    <article v-for="order in shown" :key="order.uuid" class="card" :aria-label="`Order to ${order.supplier}`">
      <header class="tools">
        <OrderMark :state="order.received ? 'accepted' : order.state" :word="order.state_name" />
        <h2 class="grow">
          {{ order.supplier }}, {{ WAYS[order.way] ?? order.way }}
          {{ date(order.way in BY_WORD ? order.at : order.run_date) }}
          <span class="quiet">{{ order.reference ? `no. ${order.reference}` : '' }}</span>
        </h2>
        <span>{{ order.parts ? `${order.parts} ${data!.currency}` : 'price not known' }}</span>
        <a :href="`/supply/orders/${order.uuid}.pdf`">PDF</a><a :href="`/supply/orders/${order.uuid}.csv`">CSV</a
        ><a :href="`/supply/orders/${order.uuid}.xlsx`">XLSX</a
        ><button type="button" class="link" @click="read(order)">E-mail text</button>
      </header>
      <OrderSending
        :order="order"
        :buys="buys"
        :busy="at.busy"
        @post="(way) => post(order, way)"
        @take-back="takeBack(order)"
      />
      <TableFile
        v-if="order.state === 'by-hand' && buys"
        label="Read their answer from a file"
        :send="(form) => answerFile(order, form)"
        @taken="at.read(load)"
      />
      <p v-else-if="order.trouble && order.state !== 'to-send'" class="problem">{{ order.trouble }}</p>
      <div v-if="letter.order === order.uuid" class="letter">
        <p class="quiet">To {{ letter.to || 'nobody: there is no address' }}. {{ letter.subject }}</p>
        <pre>{{ letter.text }}</pre>
        <div class="tools">
          <AskOnce
            v-if="buys && letter.to && !order.under_way && !(order.desk && order.state === 'to-send' && order.tries)"
            label="Send by e-mail"
            :question="`This text goes to ${letter.to} now; a letter sent cannot be called back.`"
            yes="Send it"
            :disabled="at.busy"
            @yes="mail(order)"
          /><Button text severity="secondary" label="Close" @click="letter.order = ''" />
        </div>
      </div>
      <table>
        <thead>
          <tr>
            <th>Part</th>
            <th class="n">Ordered</th>
            <th class="n">Put aside</th>
            <th class="n">Follows</th>
            <th class="n">Received</th>
            <th>For</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in order.lines" :key="line.number">
            <td>
              <b>{{ line.name }}</b><small>{{ line.number }}</small>
            </td>
            <td class="n">
              <b>{{ line.quantity }}</b>
            </td>
            <td class="n" data-label="put aside">
              {{ order.answered ? line.accepted : '?'
              }}<small v-if="line.promised && line.accepted" :class="{ warn: line.promised > order.run_date }">{{
                date(line.promised)
              }}</small
              ><small v-if="line.refused" class="warn">{{ line.refused }} refused</small>
            </td>
            <td class="n" data-label="follows">
              <template v-if="line.follows"
                ><b class="warn">{{ line.follows }}</b
                ><small v-if="line.follows_on">{{ date(line.follows_on) }}</small
                ><AskOnce
                  v-if="buys && line.to_come"
                  plain
                  label="Do not wait"
                  :named="`Do not wait for ${line.follows} ${line.name}`"
                  :question="`${order.supplier} is told not to send the rest (${line.follows}); it is needed again, from elsewhere.`"
                  yes="Do not wait"
                  @yes="drop(order, line.number)" /></template
              ><template v-else>–</template>
            </td>
            <td class="n" data-label="received">
              <b>{{ line.received }}</b> <small v-if="line.to_come">{{ line.to_come }} to come</small>
            </td>
            <td class="for">
              <p v-for="one in line.serves" :key="one">{{ one }}</p>
            </td>
          </tr>
        </tbody>
      </table>
    </article>
    <Pager v-if="data" v-model="asked.page" :page="data.page" one="order" />
  </section>
</template>

<style scoped src="./Orders.css"></style>
