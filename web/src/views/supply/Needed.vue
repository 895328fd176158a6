<script setup lang="ts">
/** Everything the shop's machines need, as one list: what is without a number first, then what must be ordered today. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, reactive, ref, watch } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { counted } from '@/app/counted'
import Pager from '@/app/Pager.vue'
import WholeNumber from '@/app/WholeNumber.vue'
import { useSession } from '@/app/session'
import { useAsked } from '@/app/useAsked'
import { date, inDays, weekday } from '@/app/words'
import SeverityMark from '@/design/SeverityMark.vue'
import ByWord from './ByWord.vue'
import LineState from './LineState.vue'
import { STATES } from './lineStates'
import SupplyTabs from './SupplyTabs.vue'
import { useAttempt } from '@/app/useAttempt'

type Line = Schemas['NeededLine']
const session = useSession()
const data = ref<Schemas['NeedsOut'] | null>(null)
const at = useAttempt('The list could not be read.')
const { asked, query } = useAsked('search', 'state', 'machine', 'order')
const dating = ref(0)
const typing = reactive({ key: '', number: '', pack: 1 })
const buys = computed(() => session.may('order'))

const load = (): Promise<boolean> =>
  at.read(async () => void (data.value = await answer(api.GET('/api/supply/list', { params: { query: query.value } }))))
watch(query, load, { immediate: true })

const lines = computed(() => data.value?.lines ?? [])
const every = computed(() => Object.values(data.value?.states ?? {}).reduce((sum, count) => sum + count, 0))
const toOrder = computed(() => data.value?.states.order ?? 0)
const numberless = computed(() => data.value?.states.number ?? 0)
/** Machines that are few enough to stand there each; of more, the one that is chosen. */
const CHIPS = 8
const chips = computed(() => {
  const all = data.value?.machines ?? []
  return all.length > CHIPS ? all.filter((one) => asked.machine === String(one.id)) : all
})
const only = (id: number): void => void (asked.machine = asked.machine === String(id) ? '' : String(id))
const unit = (line: Line, count: number): string => (line.unit ? `${count} ${line.unit}` : String(count))
const covered = (line: Line): string =>
  [
    line.shelf && `${line.shelf} on the shelf${line.bin ? ' ' + line.bin : ''}`,
    line.truck && `${line.truck} spare on the truck`,
    line.coming && `${line.coming} coming${line.promised ? ' ' + date(line.promised) : ''}`,
    line.fitted && `${line.fitted} fitted`,
  ]
    .filter(Boolean)
    .join(', ')

function find(line: Line): void {
  Object.assign(typing, { key: line.key, number: '', pack: 1 })
}
const keepNumber = (line: Line): Promise<boolean> =>
  at.run(async () => {
    data.value = await write(() =>
      api.POST('/api/supply/numbers', {
        params: { query: query.value },
        body: {
          model: line.model,
          slot: line.slot,
          side: line.side_key as '' | 'L' | 'R',
          number: typing.number,
          pack: typing.pack,
        },
      }),
    )
    typing.key = ''
  })
/** Where parts can be ordered, read when somebody first asks. */
const suppliers = ref<string[]>([])
const wording = ref('')
const asks = (line: Line): Promise<boolean> =>
  at.run(async () => {
    suppliers.value = (await answer(api.GET('/api/supply/suppliers'))).map((one) => one.name)
    wording.value = line.key
  })
const ordered = (body: Schemas['ByWordIn']): Promise<boolean> =>
  at.run(async () => {
    data.value = await write(() => api.POST('/api/supply/by-word', { params: { query: query.value }, body }))
    wording.value = ''
  })
const choose = (line: Line, number: string): Promise<boolean> =>
  at.run(
    async () =>
      void (data.value = await write(() =>
        api.POST('/api/supply/choices', {
          params: { query: query.value },
          body: { model: line.model, slot: line.slot, side: line.side_key as '' | 'L' | 'R', number },
        }),
      )),
  )
const hand = (line: Line, side: 'L' | 'R'): Promise<boolean> =>
  at.run(async () => {
    for (const piece of line.pieces)
      data.value = await write(() =>
        api.POST('/api/supply/hands', {
          params: { query: query.value },
          body: { walk_around: piece.walk_around, slot: piece.slot, positions: [piece.position], side },
        }),
      )
  })
const wanted = (id: number, day: string): Promise<boolean> =>
  at.run(async () => {
    data.value = await write(() =>
      api.POST('/api/supply/need-dates', { params: { query: query.value }, body: { machine: id, day: day || null } }),
    )
    dating.value = 0
  })
</script>

<template>
  <SupplyTabs />
  <section class="desk">
    <p v-if="at.problem && !wording" class="trouble" role="alert">
      {{ at.problem }} <Button v-if="!data" label="Try again" severity="secondary" @click="load" />
    </p>
    <p v-if="!data && !at.problem" class="quiet" role="status">Reading the list …</p>
    <template v-if="data">
      <header class="tools">
        <div class="grow">
          <h1>Parts list</h1>
          <p class="quiet">
            <b
              >{{
                toOrder
                  ? `${counted(toOrder, 'part')} to order`
                  : numberless
                    ? `${counted(numberless, 'part')} to order as soon as the number is known`
                    : 'Nothing to order'
              }}.</b
            >
            {{ counted(every, 'part') }} for {{ counted(data.machines.length, 'machine')
            }}<template v-if="numberless">, {{ numberless }} without a number</template>
          </p>
        </div>
        <a href="/supply/list.csv">CSV</a><a href="/supply/list.xlsx">XLSX</a>
        <RouterLink v-if="buys && toOrder" :to="{ name: 'sourcing' }" class="go p-button">Plan where to get them</RouterLink>
      </header>
      <ul v-if="chips.length" class="machines" aria-label="Machines">
        <li v-for="one in chips" :key="one.id" :class="{ on: asked.machine === String(one.id) }">
          <button type="button" :aria-pressed="asked.machine === String(one.id)" @click="only(one.id)">
            <b>{{ one.name }}</b><span class="quiet">{{
              one.pieces - one.fitted ? `${one.pieces - one.fitted} of ${one.pieces} open` : 'all fitted'
            }}</span>
          </button>
          <label v-if="buys && dating === one.id"
            >wanted
            <input
              v-focus
              type="date"
              :value="one.need_by ?? ''"
              :aria-label="`Parts for ${one.name} wanted by`"
              @change="wanted(one.id, ($event.target as HTMLInputElement).value)"
              @keydown.esc="dating = 0"
          /></label>
          <button
            v-else-if="buys"
            type="button"
            class="link"
            :aria-label="`${one.need_by ? weekday(one.need_by) : 'any day'}, parts for ${one.name} wanted: change`"
            @click="dating = one.id"
          >
            {{ one.need_by ? weekday(one.need_by) : 'any day' }}
          </button>
          <span v-else>{{ one.need_by ? weekday(one.need_by) : 'any day' }}</span>
        </li>
      </ul>
      <div v-if="every > 8 || data.machines.length > CHIPS" class="asks" role="search" aria-label="Parts">
        <InputText v-model="asked.search" aria-label="Find a part" placeholder="Part, number, bin, row" maxlength="80" />
        <select v-if="data.machines.length > CHIPS" v-model="asked.machine" aria-label="Machine">
          <option value="">All {{ data.machines.length }} machines</option>
          <option v-for="one in data.machines" :key="one.id" :value="String(one.id)">
            {{ one.name }} ({{ one.pieces - one.fitted }})
          </option>
        </select>
        <select v-model="asked.state" aria-label="State">
          <option value="">Every state</option>
          <option v-for="(name, key) in STATES" :key="key" :value="key">{{ name }} ({{ data.states[key] ?? 0 }})</option>
        </select>
        <select v-model="asked.order" aria-label="Order">
          <option value="">Most pressing first</option>
          <option value="day">By the day wanted</option>
          <option value="name">By name</option>
          <option value="number">By number</option>
        </select>
        <span class="quiet" role="status">{{ data.page.total }} of {{ counted(every, 'part') }}</span>
      </div>
      <p v-if="!lines.length" class="quiet">{{ every ? 'No part is like that.' : 'No machine needs anything.' }}</p>
      <div v-else class="scroll">
        <table>
          <thead>
            <tr>
              <th>State</th>
              <th>Part</th>
              <th>For</th>
              <th class="n">Needed</th>
              <th class="n">Order</th>
              <th>Wanted</th>
              <th class="n">Price, {{ data.terms.currency }}</th>
            </tr>
          </thead>
          <tbody>
            <template v-for="line in lines" :key="line.key">
              <tr :class="line.state">
                <td>
                  <LineState :state="line.state" /><button
                    v-if="line.state === 'number' && !line.hand_open && buys && typing.key !== line.key"
                    type="button"
                    class="link"
                    :aria-label="`Enter the number of ${line.name}`"
                    @click="find(line)"
                  >
                    Enter the number</button
                  ><button
                    v-if="line.state === 'order' && buys && wording !== line.key"
                    type="button"
                    class="link"
                    :aria-label="`Ordered or bought: ${line.name}`"
                    @click="asks(line)"
                  >
                    Ordered or bought</button
                  ><small v-if="covered(line)">{{ covered(line) }}</small
                  ><small v-if="line.surplus" class="warn">{{ line.surplus }} on order and no longer needed</small>
                </td>
                <td class="part">
                  <p>
                    <b
                      >{{ line.name }}<template v-if="line.side">, {{ line.side }}</template></b
                    >
                    <SeverityMark v-if="line.severity === 'stop'" severity="stop" />
                    <span v-if="line.severity === 'stop'" class="stop">Stop</span>
                  </p>
                  <p v-if="line.number" class="quiet">
                    {{ line.number }}<span v-if="line.status === 'scarce'" class="warn"> scarce</span>
                  </p>
                  <p v-else-if="line.hand_open && !session.onlyOwns">
                    Left or right? Look at the old one.
                    <Button size="small" severity="secondary" label="Left" @click="hand(line, 'L')" />
                    <Button size="small" severity="secondary" label="Right" @click="hand(line, 'R')" />
                  </p>
                  <form v-else-if="typing.key === line.key" class="find" @submit.prevent="keepNumber(line)">
                    <InputText
                      v-model="typing.number"
                      maxlength="40"
                      v-focus
                      :aria-label="`Part number of ${line.name}`"
                      placeholder="Part number"
                      :invalid="at.field === 'number'"
                    />
                    <label>packs of <WholeNumber v-model="typing.pack" :invalid="at.field === 'pack'" /></label>
                    <Button type="submit" label="Save" /><Button
                      text
                      severity="secondary"
                      label="Cancel"
                      data-out
                      @click="typing.key = ''"
                    />
                  </form>
                  <small v-if="line.note">{{ line.note }}</small>
                  <label v-if="line.alternatives.length && buys" class="other"
                    >Fit
                    <select :value="line.number" @change="choose(line, ($event.target as HTMLSelectElement).value)">
                      <option v-for="other in line.alternatives" :key="other.number" :value="other.number">
                        {{ other.kind_name }}: {{ other.number }}{{ other.life !== 1 ? `, life × ${other.life}` : ''
                        }}{{ other.price ? `, ${other.price} ${data.terms.currency}` : '' }}
                      </option>
                    </select></label
                  >
                </td>
                <td class="for">
                  <p v-for="one in line.serves" :key="one">{{ one }}</p>
                </td>
                <td class="n">
                  <b>{{ unit(line, line.needed) }}</b>
                </td>
                <td class="n">
                  <b>{{ line.order ? unit(line, line.order) : '–' }}</b><small v-if="line.pack > 1"
                    >packs of {{ line.pack }}</small
                  >
                </td>
                <td class="by">
                  <template v-if="line.need_by"
                    >{{ date(line.need_by) }}<small>{{ inDays(line.need_by, new Date(data.today)) }}</small></template
                  ><template v-else>any day</template><small v-if="!line.to_run">while apart</small
                  ><small
                    v-if="line.state === 'coming' && line.promised && line.need_by && line.promised > line.need_by"
                    class="warn"
                    >promised too late</small
                  >
                </td>
                <td class="n">{{ line.price || 'not known' }}</td>
              </tr>
              <tr v-if="wording === line.key" class="said">
                <td colspan="7">
                  <ByWord
                    :line="line"
                    :suppliers="suppliers"
                    :currency="data.terms.currency"
                    :busy="at.busy"
                    :field="at.field"
                    :problem="at.problem"
                    @order="ordered"
                    @leave="wording = ''"
                  />
                </td>
              </tr>
            </template>
          </tbody>
        </table>
      </div>
      <Pager v-model="asked.page" :page="data.page" one="part" />
    </template>
  </section>
</template>

<style scoped src="./Needed.css"></style>
