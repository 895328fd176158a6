<script setup lang="ts">
/** Many machines, a line each, worst first; what is asked for stands in the address. */
import InputText from '@/design/controls/inputtext'
import type { Schemas } from '@/api/client'
import { outbox } from '@/api/outbox'
import { counted } from '@/app/counted'
import Pager from '@/app/Pager.vue'
import type { Asking } from '@/app/useAsked'
import { date, inDays } from '@/app/words'
import ReadyLine from '@/app/ReadyLine.vue'
import type { Ready } from '@/app/useReadiness'
import SeverityMark from '@/design/SeverityMark.vue'
import { tallied, WORDS } from '@/design/severity'

type Card = Schemas['BoardMachineOut']
type Asked = Asking<'search' | 'kind' | 'owner' | 'state' | 'within' | 'order'>['asked']
const props = defineProps<{
  board: Schemas['BoardOut']
  asked: Asked
  mayInspect: boolean
  ready: Map<number, Ready>
}>()
/** The page's own: what is typed here stands in its address. */
const by = props.asked
const STATES = { stop: 'Stop found', due: 'Due found', running: 'Under way', finished: 'Finished', none: 'Not begun' }
const SEASONS = { '14': 'within 2 weeks', '30': 'within 30 days', '90': 'within 90 days' }
const ORDERS = { '': 'Worst first', season: 'By season date', name: 'By name' }
const NOTABLE = ['stop', 'due', 'asked', 'watch']
const found = (card: Card): ReturnType<typeof tallied> => tallied(card.sum).filter((one) => NOTABLE.includes(one.severity))
/** The walk-around that somebody is at, or that was begun on this device and is not sent yet. */
const goingOn = (card: Card): string | undefined =>
  outbox.begun.value.get(card.machine.id) ?? (card.newest && !card.newest.finished_at ? card.newest.id : undefined)
const looked = (card: Card): number => Math.floor(props.ready.get(card.machine.id)?.looked_pct ?? 0)
</script>

<template>
  <div class="asks" role="search" aria-label="Machines">
    <InputText v-model="by.search" aria-label="Find a machine" placeholder="Name, serial, owner" maxlength="80" />
    <select aria-label="Kind" v-model="by.kind">
      <option value="">Every kind</option>
      <option v-for="kind in board.kinds" :key="kind.key" :value="kind.key">{{ kind.name }}</option>
    </select>
    <select v-if="board.owners.length" aria-label="Owner" v-model="by.owner">
      <option value="">Every owner</option>
      <option v-for="name in board.owners" :key="name">{{ name }}</option>
    </select>
    <select aria-label="State" v-model="by.state">
      <option value="">Every state</option>
      <option v-for="(name, key) in STATES" :key="key" :value="key">{{ name }}</option>
    </select>
    <select aria-label="Needed" v-model="by.within">
      <option value="">Any season date</option>
      <option v-for="(name, key) in SEASONS" :key="key" :value="key">{{ name }}</option>
    </select>
    <select aria-label="Order" v-model="by.order">
      <option v-for="(name, key) in ORDERS" :key="key" :value="key">{{ name }}</option>
    </select>
    <span class="quiet" role="status">{{ board.page.total }} of {{ counted(board.every, 'machine') }}</span>
  </div>
  <p v-if="!board.machines.length" class="quiet">No machine is like that.</p>
  <ul class="lines">
    <li v-for="card in board.machines" :key="card.machine.id">
      <div class="what">
        <RouterLink :to="{ name: 'machine', params: { id: card.machine.id } }">{{ card.machine.name }}</RouterLink>
        <small class="quiet">{{ card.machine.kind }}{{ card.owners.length ? `, ${card.owners.join(', ')}` : '' }}</small>
      </div>
      <div class="found">
        <span v-for="one in found(card)" :key="one.severity" :class="`sev-${one.severity}`"
          ><SeverityMark :severity="one.severity" wordless /> <b>{{ one.count }}</b>
          {{ WORDS[one.severity].toLowerCase() }}</span
        >
        <span v-if="card.newest && !found(card).length" class="quiet">Nothing found so far</span>
        <span v-if="!card.newest" class="quiet">Not begun</span>
        <ReadyLine v-if="ready.get(card.machine.id)" :ready="ready.get(card.machine.id)!" />
        <b v-else-if="card.sum.stop" class="sev-stop">Do not run or drive it.</b>
      </div>
      <div class="looked" :class="{ none: !card.newest }">
        <template v-if="card.newest && ready.has(card.machine.id)">
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
        v-if="goingOn(card) && mayInspect"
        class="next"
        :to="{ name: 'walk-around', params: { id: goingOn(card) } }"
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
  <Pager :page="board.page" one="machine" v-model="by.page" />
</template>

<style scoped>
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
