<script setup lang="ts">
/** Many machines, a line each, worst first; what is asked for stands in the address. */
import InputText from '@/design/controls/inputtext'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { counted } from '@/app/counted'
import { date, inDays } from '@/app/words'
import SeverityMark from '@/design/SeverityMark.vue'
import { tallied, WORDS } from '@/design/severity'
import { asked, ORDERS, STATES, type Card } from './board'

const props = defineProps<{ cards: Card[]; mayInspect: boolean }>()
const route = useRoute()
const router = useRouter()
const text = (key: string): string => (typeof route.query[key] === 'string' ? route.query[key] : '')
const by = computed(() => ({
  search: text('search'),
  kind: text('kind'),
  owner: text('owner'),
  state: text('state'),
  within: text('within'),
  order: text('order'),
}))
const ask = (change: Record<string, string>): void =>
  void router.replace({
    query: { ...route.query, ...Object.fromEntries(Object.entries(change).map(([key, value]) => [key, value || undefined])) },
  })
const today = new Date().toLocaleDateString('sv')
const shown = computed(() => asked(props.cards, by.value, today))
const kinds = computed(() =>
  [...new Map(props.cards.map(({ machine }) => [machine.family, machine.kind]))].sort((a, b) => a[1].localeCompare(b[1])),
)
const owners = computed(() => [...new Set(props.cards.flatMap((card) => card.owners))].sort())
const SEASONS = { '14': 'within 2 weeks', '30': 'within 30 days', '90': 'within 90 days' }
const said = (event: Event): string => (event.target as HTMLSelectElement).value
const NOTABLE = ['stop', 'due', 'asked', 'watch']
const found = (card: Card): ReturnType<typeof tallied> => tallied(card.sum).filter((one) => NOTABLE.includes(one.severity))
const looked = (card: Card): number => (card.sum.total ? Math.round((1 - card.sum.open / card.sum.total) * 100) : 0)
</script>

<template>
  <div class="asks" role="search" aria-label="Machines">
    <InputText
      :model-value="by.search"
      aria-label="Find a machine"
      placeholder="Name, serial, owner"
      maxlength="80"
      @update:model-value="(words) => ask({ search: words ?? '' })"
    />
    <select aria-label="Kind" :value="by.kind" @change="ask({ kind: said($event) })">
      <option value="">Every kind</option>
      <option v-for="[key, name] in kinds" :key="key" :value="key">{{ name }}</option>
    </select>
    <select v-if="owners.length" aria-label="Owner" :value="by.owner" @change="ask({ owner: said($event) })">
      <option value="">Every owner</option>
      <option v-for="name in owners" :key="name">{{ name }}</option>
    </select>
    <select aria-label="State" :value="by.state" @change="ask({ state: said($event) })">
      <option value="">Every state</option>
      <option v-for="(state, key) in STATES" :key="key" :value="key">{{ state.name }}</option>
    </select>
    <select aria-label="Needed" :value="by.within" @change="ask({ within: said($event) })">
      <option value="">Any season date</option>
      <option v-for="(name, key) in SEASONS" :key="key" :value="key">{{ name }}</option>
    </select>
    <select aria-label="Order" :value="by.order || 'worst'" @change="ask({ order: said($event) })">
      <option v-for="(order, key) in ORDERS" :key="key" :value="key">{{ order.name }}</option>
    </select>
    <span class="quiet" role="status">{{ shown.length }} of {{ counted(cards.length, 'machine') }}</span>
  </div>
  <p v-if="!shown.length" class="quiet">No machine is like that.</p>
  <ul class="lines">
    <li v-for="card in shown" :key="card.machine.id">
      <div class="what">
        <RouterLink :to="{ name: 'machine', params: { id: card.machine.id } }">{{ card.machine.name }}</RouterLink>
        <small class="quiet">{{ card.machine.kind }}{{ card.owners.length ? `, ${card.owners.join(', ')}` : '' }}</small>
      </div>
      <div class="found">
        <span v-for="one in found(card)" :key="one.severity" :class="`sev-${one.severity}`"
          ><SeverityMark :severity="one.severity" wordless /> <b>{{ one.count }}</b>
          {{ WORDS[one.severity].toLowerCase() }}</span
        >
        <b v-if="card.sum.stop" class="sev-stop">Do not run or drive it.</b>
        <span v-if="card.newest && !found(card).length" class="quiet">Nothing found so far</span>
        <span v-if="!card.newest" class="quiet">Not begun</span>
      </div>
      <div class="looked" :class="{ none: !card.newest }">
        <template v-if="card.newest">
          <span class="bar" aria-hidden="true"><span :style="{ width: `${looked(card)}%` }"></span></span>
          <span>{{ looked(card) }} % looked at{{ card.newest.finished_at ? ', finished' : '' }}</span>
        </template>
      </div>
      <div class="needed">
        <template v-if="card.machine.season_date"
          >{{ inDays(card.machine.season_date) }}<small class="quiet">{{ date(card.machine.season_date) }}</small></template
        >
      </div>
      <RouterLink
        v-if="card.newest && !card.newest.finished_at && mayInspect"
        class="next"
        :to="{ name: 'walk-around', params: { id: card.newest.id } }"
        :aria-label="`Continue ${card.machine.name}`"
        >Continue</RouterLink
      >
      <RouterLink
        v-else-if="mayInspect"
        class="next"
        :to="{ name: 'machine', params: { id: card.machine.id } }"
        :aria-label="`New walk-around of ${card.machine.name}`"
        >New walk-around</RouterLink
      >
      <RouterLink v-else-if="card.newest" class="next" :to="{ name: 'findings', params: { id: card.newest.id } }"
        >Findings</RouterLink
      >
    </li>
  </ul>
</template>

<style scoped>
.asks {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 10px;
  align-items: center;
}
.asks :deep(input),
.asks select {
  min-height: var(--target);
}
.asks select {
  font: inherit;
  color: var(--ink);
  background: var(--surface);
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 0 10px;
  max-width: 100%;
}
.lines {
  background: var(--surface);
  border: 1px solid var(--line);
  border-radius: var(--radius);
}
.lines li {
  display: grid;
  grid-template-columns: minmax(200px, 1.3fr) minmax(200px, 1.4fr) 190px 120px 140px;
  gap: 4px 16px;
  align-items: center;
  padding: 2px 16px;
  min-height: 48px;
}
.lines li + li {
  border-top: 1px solid var(--line);
}
.what a {
  font-weight: 600;
  color: var(--ink);
}
.lines small {
  display: block;
}
.found {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
.bar {
  display: block;
  height: 6px;
  border-radius: 3px;
  background: var(--line);
}
.bar span {
  display: block;
  height: 6px;
  border-radius: 3px;
  background: var(--ink);
}
.next {
  font-weight: 600;
  min-height: var(--target);
  display: inline-flex;
  align-items: center;
}
@media (max-width: 900px) {
  .lines li {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    padding: 8px 12px;
  }
  .looked.none,
  .needed:empty {
    display: none;
  }
}
</style>
