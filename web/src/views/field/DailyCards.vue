<script setup lang="ts">
/** The daily cards of every machine: who was looked at how regularly in the last two weeks. */
import InputText from '@/design/controls/inputtext'
import { onMounted, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { counted } from '@/app/counted'
import Pager from '@/app/Pager.vue'
import { useAsked } from '@/app/useAsked'
import { usePages } from '@/app/usePages'
import { useAttempt } from '@/app/useAttempt'
import FirstFieldWord from './FirstFieldWord.vue'
import DayDots from './DayDots.vue'

const cards = ref<Schemas['DailyFleetOut'][] | null>(null)
const at = useAttempt('The daily cards could not be read.')
const { asked } = useAsked('search')
const { found, shown, page, many } = usePages(
  () => cards.value ?? [],
  asked,
  (one) => `${one.machine.name} ${one.machine.kind}`,
)
onMounted(() => at.read(async () => void (cards.value = await answer(api.GET('/api/field/daily')))))
/** What is over since it began to work: today may still be done. */
const over = (one: Schemas['DailyFleetOut']): Schemas['DailyDayOut'][] =>
  one.since ? one.days.slice(0, -1).filter((day) => day.day >= one.since!) : []
const words = (one: Schemas['DailyFleetOut']): string =>
  one.since
    ? `${counted(one.streak, 'day')} in a row${over(one).length ? `, ${over(one).filter((day) => day.done < one.of).length} of ${over(one).length} missed` : ''}`
    : 'Begins when it works'
</script>

<template>
  <section class="desk">
    <header class="tools">
      <h1 class="grow">Daily cards</h1>
      <InputText v-if="many" v-model="asked.search" aria-label="Find a machine" placeholder="Find a machine" maxlength="80" />
    </header>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <p v-if="cards && !cards.length" class="quiet">No machine has a daily card.</p>
    <p v-else-if="cards && !found.length" class="quiet">No machine is like that.</p>
    <ul v-if="found.length" class="card">
      <li v-for="one in shown" :key="one.machine.id">
        <RouterLink :to="{ name: 'daily', params: { id: one.machine.id } }" class="grow">{{ one.machine.name }}</RouterLink>
        <DayDots :days="one.days" :of="one.of" :since="one.since" class="fortnight" />
        <span class="words">{{ words(one) }}</span>
        <FirstFieldWord v-if="one.first_field.state !== 'right'" :first-field="one.first_field" class="first" />
      </li>
    </ul>
    <Pager v-model="asked.page" :page="page" one="machine" />
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 20px;
  border-top: 1px solid var(--line);
  padding: 8px 0;
  min-height: var(--target);
}
li:first-child {
  border-top: 0;
}
.grow {
  flex: 1 1 160px;
  font-weight: 600;
}
.fortnight {
  flex: 0 1 260px;
}
.words {
  flex: 0 1 220px;
}
.first {
  flex: 1 1 100%;
  margin: 0;
}
</style>
