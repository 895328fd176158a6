<script setup lang="ts">
/** The machines by season date: how far each walk-around is, what it has found, and the one thing to do next. */
import Button from '@/design/controls/button'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import { takeAlong } from '@/api/kept'
import { outbox } from '@/api/outbox'
import { beforehandOf } from '@/views/machine/beginning'
import { counted } from '@/app/counted'
import { useSession } from '@/app/session'
import { useAsked } from '@/app/useAsked'
import { useAttempt } from '@/app/useAttempt'
import { date, inDays } from '@/app/words'
import FirstDay from './FirstDay.vue'
import MachineList from './MachineList.vue'
import ReadyLine from '@/app/ReadyLine.vue'
import { useReadiness, type Ready } from '@/app/useReadiness'
import MachineMap from '@/design/MachineMap.vue'
import SeverityMark from '@/design/SeverityMark.vue'
import { tallied, WORDS } from '@/design/severity'

const router = useRouter()
const session = useSession()
const board = ref<Schemas['BoardOut'] | null>(null)
const at = useAttempt('The machines could not be read.')
const { asked, query } = useAsked('search', 'kind', 'owner', 'state', 'within', 'order')
const mayInspect = computed(() => session.may('start a walk-around'))
const { ready, ask } = useReadiness()
void ask()
/** What must not run stands first, then what will be late most. */
const pressing = (season?: Ready): number => (season?.state === 'not_fit' ? 10_000 : (season?.late_days ?? 0))
const cards = computed(() =>
  (board.value?.machines ?? [])
    .map((card) => ({
      ...card,
      running: !!card.newest && !card.newest.finished_at,
      found: tallied(card.sum),
      season: ready.value.get(card.machine.id),
    }))
    .sort((a, b) => ((asked.order || 'worst') === 'worst' ? pressing(b.season) - pressing(a.season) : 0)),
)
/** So many that each is a line and not a picture. */
const many = computed(() => (board.value?.every ?? 0) > DRAWN)
const DRAWN = 12
/** So many machines can be worked on where there is no signal, though nobody opened them here. */
const TAKEN_ALONG = 12

/** What is wanted beside a machine: its walk-around that is under way, or one to begin. */
const ahead = ({ machine, newest, running }: (typeof cards.value)[number]): string[] =>
  running ? [`/api/walk-arounds/${newest!.id}`] : [`/api/machines/${machine.id}/start`, beforehandOf(machine.id)]
const load = (): Promise<boolean> =>
  at.read(async () => {
    board.value = await answer(api.GET('/api/machines', { params: { query: query.value } }))
    const addresses = cards.value.slice(0, TAKEN_ALONG).flatMap((card) => ahead(card))
    if (mayInspect.value) void takeAlong(addresses)
  })
watch(query, load, { immediate: true })

const start = (machine: number): Promise<unknown> => router.push({ name: 'machine', params: { id: machine } })
</script>

<template>
  <section class="page">
    <header class="top">
      <h1>Machines</h1>
      <RouterLink v-if="session.may('plan the season') && board?.every" class="beside" :to="{ name: 'daily-cards' }"
        >Daily cards</RouterLink
      >
      <RouterLink v-if="session.may('add machines') && board?.every" class="add" :to="{ name: 'new-machine' }"
        >Add a machine</RouterLink
      >
    </header>
    <FirstDay v-if="board && session.me && !session.me.begun && session.may('change the shop')" :machines="board.machines" />
    <p v-if="at.problem" class="problem" role="alert">
      {{ at.problem }} <Button label="Try again" severity="secondary" @click="load" />
    </p>
    <p v-else-if="!board" class="quiet" role="status">Reading the machines …</p>
    <p v-else-if="!board.every && (session.me?.begun || !session.may('add machines'))" class="quiet">
      No machine is yours to see yet. The shop lead adds them.
    </p>
    <MachineList v-if="many && board" :board="board" :asked="asked" :may-inspect="mayInspect" :ready="ready" />
    <article
      v-for="card in many ? [] : cards"
      :key="card.machine.id"
      class="card"
      :aria-labelledby="`machine-${card.machine.id}`"
    >
      <div class="what">
        <h2 :id="`machine-${card.machine.id}`">
          <RouterLink :to="{ name: 'machine', params: { id: card.machine.id } }">{{ card.machine.name }}</RouterLink>
        </h2>
        <p class="quiet">
          {{ card.machine.kind }}<template v-if="card.machine.rows">, {{ counted(card.machine.rows, 'row') }}</template
          ><template v-if="card.machine.hours">, {{ card.machine.hours }} h</template
          ><template v-if="card.machine.area_ha">, {{ card.machine.area_ha }} ha</template>
        </p>
        <p v-if="card.machine.season_date">
          Needed <b>{{ inDays(card.machine.season_date) }}</b>, {{ date(card.machine.season_date) }}
        </p>
      </div>
      <div class="state">
        <template v-if="card.newest">
          <MachineMap :stations="card.stations" small />
          <p class="sum">
            <span v-if="card.season" class="quiet">{{ Math.floor(card.season.looked_pct ?? 0) }} % looked at</span>
            <span v-for="item in card.found" :key="item.severity" :class="`sev-${item.severity}`"
              ><SeverityMark :severity="item.severity" wordless /> <b>{{ item.count }}</b>
              {{ WORDS[item.severity].toLowerCase() }}</span
            >
          </p>
        </template>
        <p v-else-if="!outbox.begun.value.has(card.machine.id)" class="quiet">Not begun: no walk-around yet.</p>
        <ReadyLine v-if="card.season" :ready="card.season" />
        <p v-else-if="card.sum.stop" class="stop"><SeverityMark severity="stop" wordless /> <b>Do not run or drive it.</b></p>
      </div>
      <div class="next">
        <template v-if="outbox.begun.value.has(card.machine.id)">
          <Button
            class="main"
            label="Continue walk-around"
            @click="router.push({ name: 'walk-around', params: { id: outbox.begun.value.get(card.machine.id) } })"
          />
          <p class="quiet">Begun on this device, not sent yet</p>
        </template>
        <template v-else-if="card.newest">
          <Button
            v-if="card.running && mayInspect"
            class="main"
            label="Continue walk-around"
            @click="router.push({ name: 'walk-around', params: { id: card.newest.id } })"
          />
          <Button v-else-if="mayInspect" class="main" label="New walk-around" @click="start(card.machine.id)" />
          <p class="links">
            <RouterLink v-if="!card.running || !mayInspect" :to="{ name: 'walk-around', params: { id: card.newest.id } }"
              >Readings</RouterLink
            >
            <RouterLink :to="{ name: 'findings', params: { id: card.newest.id } }">Findings</RouterLink>
            <RouterLink :to="{ name: 'parts', params: { id: card.newest.id } }">Parts</RouterLink>
            <a :href="`/walk-arounds/${card.newest.id}/report`">Report</a>
          </p>
        </template>
        <Button v-else-if="mayInspect" class="main" label="New walk-around" @click="start(card.machine.id)" />
      </div>
    </article>
    <nav class="phone" aria-label="Look up">
      <RouterLink :to="{ name: 'catalogue' }">Catalogue</RouterLink
      ><RouterLink v-if="session.may('see daily cards')" :to="{ name: 'daily-cards' }">Daily cards</RouterLink>
      <RouterLink v-if="session.may('see rules')" :to="{ name: 'rules' }">Rules</RouterLink>
    </nav>
  </section>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 4px 16px;
}
.add,
.beside {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  font-weight: 600;
}
.beside {
  margin-left: auto;
}
.page {
  max-width: 1240px;
  margin: 0 auto;
  padding: 14px 20px 20px;
  display: grid;
  gap: 12px;
}
.card {
  display: grid;
  grid-template-columns: 250px minmax(0, 1fr) 248px;
  gap: 24px;
  align-items: start;
  padding: 12px 20px;
  background: var(--surface);
  border: 1px solid var(--line);
  border-radius: var(--radius);
  box-shadow: var(--shadow);
}
.card h2 {
  font-size: 1.4rem;
}
.what {
  display: grid;
  gap: 4px;
}
.phone {
  display: none;
  gap: 20px;
}
.phone a {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  font-weight: 600;
}
@media (max-width: 700px) {
  .phone {
    display: flex;
  }
}
.stop {
  color: var(--stop);
}
.card h2 a {
  color: var(--ink);
  text-decoration: none;
}
.card h2 a:hover {
  text-decoration: underline;
}
.sum {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
.next {
  display: grid;
  gap: 4px;
}
.main {
  min-height: 48px;
}
.links {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
}
.links a {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  font-weight: 600;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 900px) {
  .card {
    grid-template-columns: minmax(0, 1fr);
    gap: 12px;
    padding: 14px;
  }
  .page {
    padding: 12px;
  }
}
</style>
