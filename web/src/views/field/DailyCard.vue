<script setup lang="ts">
/** What is looked at and greased on a machine each day: ticked in a minute, what is wrong said where it is. */
import { computed, onMounted, ref } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { answer, api, type Schemas } from '@/api/client'
import type { Entry } from '@/api/outbox'
import { answeredOrKept, useOnItsWay } from '@/api/useOnItsWay'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { counted } from '@/app/counted'
import { date } from '@/app/words'
import NotTaken from '@/app/NotTaken.vue'
import { useAttempt } from '@/app/useAttempt'
import MachineTabs from '@/views/machine/MachineTabs.vue'
import FirstFieldWord from './FirstFieldWord.vue'
import DayDots from './DayDots.vue'

const props = defineProps<{ id: string }>()
const card = ref<Schemas['DailyCardOut'] | null>(null)
const at = useAttempt('That could not be kept.')
const post = usePost()
const path = { machine_id: Number(props.id) }
const TICKS = '/api/field/machines/{machine_id}/daily'
onMounted(() =>
  at.read(
    async () => void (card.value = await answer(api.GET('/api/field/machines/{machine_id}/daily', { params: { path } }))),
  ),
)
const { waiting, notTaken } = useOnItsWay(
  TICKS,
  (answer) => void (card.value = answer),
  (entry) => Number(entry.params.machine_id) === path.machine_id,
)
/** With what was ticked and cannot reach the server now. */
const items = computed<Schemas['DailyItemOut'][]>(() =>
  (card.value?.items ?? []).map((item) => {
    const tick = waiting.value.filter((one) => one.day === card.value?.day && one.keys.includes(item.key)).at(-1)
    return tick ? { ...item, state: tick.right ? 'right' : 'not', words: tick.words ?? '', by: '· on its way' } : item
  }),
)
/** What was not taken of one thing, at its place; without a key what was said of several at once. */
const notTakenOf = (key = ''): Entry[] =>
  notTaken.value.filter(({ body }) => ((body.keys as string[]).length === 1 ? (body.keys as string[])[0] : '') === key)
const open = computed(() => items.value.filter((one) => !one.state))
const wrong = ref('')
const words = ref('')
const stations = computed(() => {
  const groups: { name: string; items: Schemas['DailyItemOut'][] }[] = []
  for (const item of items.value) {
    if (groups.at(-1)?.name !== item.station) groups.push({ name: item.station, items: [] })
    groups.at(-1)!.items.push(item)
  }
  return groups
})
const tick = (keys: string[], right = true, said = ''): Promise<boolean> =>
  at.run(async () => {
    const body = { uuid: newUuid(), keys, right, words: said, day: card.value!.day }
    const about = { what: 'Daily card', shown: said, machine: card.value?.machine.name }
    await answeredOrKept(body.uuid, post(TICKS, path, body, about))
    if (!right && wrong.value === keys[0]) wrong.value = words.value = ''
  })
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <header class="tools">
      <div class="grow">
        <h1>{{ card ? `${card.machine.name}: today` : 'Daily card' }}</h1>
        <p v-if="card" class="quiet">
          {{ date(card.day) }}{{ card.header ? `, with ${card.header}` : '' }}.
          {{ card.streak ? `${counted(card.streak, 'day')} in a row.` : '' }}
        </p>
      </div>
      <DayDots v-if="card" :since="card.since" :days="card.days" :of="card.items.length" class="fortnight" />
      <Button
        v-if="card?.may_tick && open.length"
        :label="open.length === card.items.length ? 'All of it is right' : `The other ${open.length} are right`"
        :disabled="at.busy"
        @click="tick(open.map((one) => one.key))"
      />
      <b v-else-if="card?.items.length" class="done">✓ All looked at</b>
    </header>
    <p v-if="at.problem && !wrong" class="trouble" role="alert">{{ at.problem }}</p>
    <NotTaken :entries="notTakenOf()" />
    <RouterLink v-if="card && !['idle', 'right'].includes(card.first_field.state)" :to="{ name: 'field-card', params: { id } }"
      ><FirstFieldWord :first-field="card.first_field"
    /></RouterLink>
    <p v-if="card && !card.items.length" class="quiet">Nothing is looked at each day on this machine.</p>
    <section v-for="station in stations" :key="station.name" class="card" :aria-label="station.name">
      <h2>{{ station.name }}</h2>
      <ul>
        <li v-for="one in station.items" :key="one.key" :class="one.state">
          <svg viewBox="0 0 20 20" aria-hidden="true">
            <path v-if="one.state === 'right'" d="m3 10 5 5 9-11" />
            <path v-else-if="one.state === 'not'" d="M4 4l12 12M16 4 4 16" />
            <circle v-else cx="10" cy="10" r="6.5" />
          </svg>
          <span class="grow"
            ><b>{{ one.name }}</b
            ><small class="quiet">{{ one.words || one.how }}{{ one.by ? ` ${one.by}` : '' }}</small></span
          >
          <div class="not-taken"><NotTaken :entries="notTakenOf(one.key)" /></div>
          <template v-if="card?.may_tick && wrong !== one.key">
            <Button
              v-if="one.state !== 'right'"
              severity="secondary"
              label="Right"
              :aria-label="`${one.name}: right`"
              :disabled="at.busy"
              @click="tick([one.key])"
            />
            <Button
              v-if="one.state !== 'not'"
              severity="secondary"
              label="Wrong"
              :aria-label="`${one.name}: wrong`"
              @click="((wrong = one.key), (words = ''))"
            />
          </template>
          <form
            v-if="wrong === one.key"
            class="tools"
            :aria-label="`What is wrong with ${one.name}`"
            @submit.prevent="tick([one.key], false, words)"
          >
            <label>What is wrong <InputText v-model="words" v-focus maxlength="200" :invalid="at.field === 'words'" /></label>
            <Button type="submit" label="Keep" :disabled="at.busy" />
            <button type="button" class="link" @click="wrong = ''">Leave it</button>
            <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
          </form>
        </li>
      </ul>
    </section>
    <p v-if="card" class="quiet">
      What is wrong is kept as a note and comes back at its place in the next walk-around. Engine off, key out and kept, all
      motion stopped, before hands go in.
    </p>
  </section>
</template>

<style scoped>
.not-taken:empty {
  display: none;
}
.fortnight {
  flex: 0 1 240px;
}
.done {
  color: var(--sound);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
li svg {
  flex: none;
  width: 22px;
  fill: none;
  stroke: var(--quiet);
  stroke-width: 2;
}
li.right svg {
  stroke: var(--sound);
  stroke-width: 3;
}
li.not svg {
  stroke: var(--stop);
  stroke-width: 3;
}
.grow {
  flex: 1 1 240px;
}
small {
  display: block;
}
</style>
