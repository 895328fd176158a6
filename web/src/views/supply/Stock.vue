<script setup lang="ts">
/** Shelf and truck: what lies where, how many the truck should carry and why, and what moved. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { onMounted, reactive, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import { date } from '@/app/words'
import SupplyTabs from './SupplyTabs.vue'
import Pager from '@/app/Pager.vue'
import { useAsked } from '@/app/useAsked'
import { usePages } from '@/app/usePages'
import { figureIfTyped, whole, wholeIfTyped } from '@/app/figures'
import { useAttempt } from '@/app/useAttempt'

type Item = Schemas['StockLineOut']
const data = ref<Schemas['StockOut'] | null>(null)
const at = useAttempt('The stock could not be read.')
const { asked } = useAsked('search')
const { found, shown, page, many } = usePages(
  () => data.value?.items ?? [],
  asked,
  (item) => `${item.name} ${item.number} ${item.bin}`,
)
const open = reactive({
  number: '',
  what: '' as '' | 'count' | 'load' | 'keep' | 'back',
  place: 'shelf' as 'shelf' | 'truck',
  quantity: '',
  note: '',
  bin: '',
  events: '',
  hours: '',
  ahead: '',
  prior: '200',
  uuid: '',
})
const adding = reactive({ number: '', name: '', bin: '' })
onMounted(() => at.read(async () => void (data.value = await answer(api.GET('/api/supply/stock')))))

function begin(item: Item, what: 'count' | 'load' | 'keep' | 'back', place: 'shelf' | 'truck' = 'shelf'): void {
  Object.assign(open, {
    number: item.number,
    what,
    place,
    quantity: what === 'keep' ? String(item.carry) : '',
    note: '',
    bin: item.bin,
    events: String(item.past_events),
    hours: String(item.hours),
    ahead: String(item.hours_ahead),
    prior: String(item.prior_hours),
    uuid: newUuid(),
  })
  at.problem = ''
}
const keep = (item: Item, change: Partial<Schemas['StockItemIn']>): Promise<Schemas['StockOut']> => {
  const body = {
    number: item.number,
    name: item.name,
    bin: item.bin,
    carry: item.carry,
    past_events: item.past_events,
    past_hours: item.hours,
    hours_ahead: item.hours_ahead,
    prior_hours: item.prior_hours,
    ...change,
  }
  return write(() => api.POST('/api/supply/stock/items', { body }))
}
function done(item: Item): Promise<boolean> {
  return at.run(async () => {
    const quantity = whole(open.quantity, 'quantity')
    const { uuid, number, place } = open
    if (open.what === 'keep')
      data.value = await keep(item, {
        carry: quantity,
        bin: open.bin,
        past_events: wholeIfTyped(open.events, 'past_events') ?? 0,
        past_hours: figureIfTyped(open.hours, 'past_hours') ?? 0,
        hours_ahead: figureIfTyped(open.ahead, 'hours_ahead') ?? 0,
        prior_hours: figureIfTyped(open.prior, 'prior_hours') ?? 0,
      })
    else if (open.what === 'count')
      data.value = await write(() => api.POST('/api/supply/stock/count', { body: { uuid, number, place, counted: quantity } }))
    else if (open.what === 'load')
      data.value = await write(() => api.POST('/api/supply/stock/load', { body: { uuid, number, quantity } }))
    else
      data.value = await write(() =>
        api.POST('/api/supply/stock/give-back', { body: { uuid, number, quantity, note: open.note } }),
      )
    open.number = ''
  })
}
const takeBack = (movement: string): Promise<boolean> =>
  at.run(async () => {
    await write(() =>
      api.POST('/api/supply/movements/{movement_id}/take-back', { params: { path: { movement_id: movement } } }),
    )
    data.value = await answer(api.GET('/api/supply/stock'))
  })
const add = (): Promise<boolean> =>
  at.run(async () => {
    data.value = await write(() =>
      api.POST('/api/supply/stock/items', {
        body: { ...adding, carry: 0, past_events: 0, past_hours: 0, hours_ahead: 0, prior_hours: 200 },
      }),
    )
    Object.assign(adding, { number: '', name: '', bin: '' })
  })
const WAYS = { count: 'Count it', load: 'To the truck', keep: 'Set to carry', back: 'Send back' }
const LABELS = { count: 'Counted', load: 'To the truck (below 0: to the shelf)', keep: 'The truck carries', back: 'Send back' }
const why = (item: Item): string =>
  item.hours_ahead
    ? `${item.events} failed in ${item.hours.toLocaleString('en-GB')} h × places; ${item.expected.toFixed(1)} expected in the next ${item.hours_ahead.toLocaleString('en-GB')} h × places`
    : 'no hours ahead are entered'
</script>

<template>
  <SupplyTabs />
  <section class="desk">
    <p v-if="at.problem && !open.number" class="trouble" role="alert">{{ at.problem }}</p>
    <template v-if="data">
      <header class="tools">
        <div class="grow">
          <h1>Stock</h1>
          <p class="quiet">
            Advised: enough that the truck runs out before the next delivery in fewer than
            {{ Math.round((1 - data.service) * 100) }} of 100 cases.
          </p>
        </div>
        <InputText
          v-if="many || asked.search"
          v-model="asked.search"
          aria-label="Find a part"
          placeholder="Part, number or bin"
          maxlength="80"
        />
        <a href="/supply/labels.pdf?for=bins">Bin labels</a>
      </header>
      <p v-if="!found.length" class="quiet">{{ asked.search ? 'No part is like that.' : 'Nothing is stocked yet.' }}</p>
      <div v-else class="scroll">
        <table class="as-list">
          <thead>
            <tr>
              <th>Part</th>
              <th>Bin</th>
              <th class="n">Shelf</th>
              <th class="n">Truck</th>
              <th class="n">Carries</th>
              <th class="n">Advised</th>
              <th>Why</th>
              <th><span class="unseen">Do</span></th>
            </tr>
          </thead>
          <tbody>
            <template v-for="item in shown" :key="item.number">
              <tr>
                <td>
                  <b>{{ item.name }}</b><small
                    >{{ item.number }}<template v-if="item.price">, {{ item.price }} {{ data.currency }}</template></small
                  >
                </td>
                <td class="bin" data-label="Bin">{{ item.bin || '–' }}</td>
                <td class="n" data-label="Shelf">
                  <b>{{ item.shelf }}</b>
                </td>
                <td class="n" data-label="Truck">
                  <b :class="{ warn: item.truck < item.carry }">{{ item.truck }}</b><small v-if="item.truck < item.carry"
                    >{{ item.carry - item.truck }} missing</small
                  >
                </td>
                <td class="n" data-label="Carries">{{ item.carry }}</td>
                <td class="n" data-label="Advised">
                  <b :class="{ warn: item.hours_ahead && item.advised !== item.carry }">{{
                    item.hours_ahead ? item.advised : '–'
                  }}</b>
                </td>
                <td class="quiet">{{ why(item) }}</td>
                <td class="act">
                  <button
                    v-for="way in ['count', 'load', 'keep', 'back'] as const"
                    :key="way"
                    type="button"
                    class="link"
                    :aria-label="`${WAYS[way]}: ${item.name}`"
                    @click="begin(item, way)"
                  >
                    {{ WAYS[way] }}
                  </button>
                </td>
              </tr>
              <tr v-if="open.number === item.number">
                <td colspan="8">
                  <form class="tools" @submit.prevent="done(item)">
                    <label v-if="open.what === 'count'"
                      >On the
                      <select v-model="open.place">
                        <option value="shelf">shelf</option>
                        <option value="truck">truck</option>
                      </select></label
                    >
                    <label
                      >{{ LABELS[open.what || 'count'] }}
                      <InputText
                        v-model="open.quantity"
                        v-focus
                        inputmode="numeric"
                        class="figure"
                        :invalid="at.field === 'quantity'"
                    /></label>
                    <template v-if="open.what === 'keep'"
                      ><label>Bin <InputText v-model="open.bin" maxlength="20" class="figure" /></label
                      ><label
                        >Failed before
                        <InputText
                          v-model="open.events"
                          inputmode="numeric"
                          class="figure"
                          :invalid="at.field === 'past_events'" /></label
                      ><label
                        >in h × places
                        <InputText
                          v-model="open.hours"
                          inputmode="decimal"
                          class="figure"
                          :invalid="at.field === 'past_hours'" /></label
                      ><label
                        >h × places until the next delivery
                        <InputText
                          v-model="open.ahead"
                          inputmode="decimal"
                          class="figure"
                          :invalid="at.field === 'hours_ahead'" /></label
                      ><label
                        >Such a part
                        <select v-model="open.prior">
                          <option value="200">wears quickly</option>
                          <option value="5000">seldom fails</option>
                        </select></label
                      ></template
                    >
                    <label v-if="open.what === 'back'"
                      >To whom and why <InputText v-model="open.note" maxlength="200" :invalid="at.field === 'note'"
                    /></label>
                    <Button
                      v-if="open.what === 'keep' && item.hours_ahead"
                      severity="secondary"
                      :label="`As advised: ${item.advised}`"
                      @click="open.quantity = String(item.advised)"
                    />
                    <Button type="submit" label="Save" :disabled="at.busy" /><Button
                      text
                      severity="secondary"
                      label="Cancel"
                      data-out
                      @click="open.number = ''"
                    />
                    <p v-if="at.problem" class="problem" role="alert">{{ at.problem }}</p>
                  </form>
                </td>
              </tr>
            </template>
          </tbody>
        </table>
      </div>
      <Pager v-model="asked.page" :page="page" one="part" />
      <form class="tools" @submit.prevent="add">
        <b>Stock another part</b
        ><InputText v-model="adding.number" maxlength="40" placeholder="Number" aria-label="Number" class="figure" /><InputText
          v-model="adding.name"
          maxlength="80"
          placeholder="Name"
          aria-label="Name"
        /><InputText v-model="adding.bin" maxlength="20" placeholder="Bin" aria-label="Bin" class="figure" /><Button
          type="submit"
          severity="secondary"
          label="Add"
          :disabled="!adding.number || !adding.name"
        />
      </form>
      <section aria-labelledby="moved">
        <h2 id="moved">What moved</h2>
        <ul class="moves">
          <li v-for="one in data.movements" :key="one.uuid">
            <b class="n">{{ one.change > 0 ? '+' : '−' }}{{ Math.abs(one.change) }}</b> <span>{{ one.number }}</span>
            <span
              >{{ one.reason.toLowerCase() }}, {{ one.place }}<template v-if="one.note">, {{ one.note }}</template></span
            >
            <span class="quiet">{{ one.by }}, {{ date(one.at) }}</span
            ><button
              v-if="one.may_take_back"
              type="button"
              class="link"
              :aria-label="`Take back: ${one.number} ${one.reason.toLowerCase()}, ${Math.abs(one.change)}`"
              :disabled="at.busy"
              @click="takeBack(one.uuid)"
            >
              Take back
            </button>
          </li>
        </ul>
      </section>
    </template>
    <p v-else-if="!at.problem" class="quiet" role="status">Reading the stock …</p>
  </section>
</template>

<style scoped src="./Stock.css"></style>
