<script setup lang="ts">
/** Who is there when, what they may do, and when it is dry. */
import { onMounted, reactive, ref } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { answer, api, write, type Schemas } from '@/api/client'
import { asForm } from '@/api/steps'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import FilePick from '@/app/FilePick.vue'
import { inquire } from '@/app/inquiry'
import { date, when } from '@/app/words'
import { useAttempt } from '@/app/useAttempt'
import { useSession } from '@/app/session'
import PlanTabs from './PlanTabs.vue'

const session = useSession()
const found = ref<Schemas['SeasonHandsOut'] | null>(null)
const at = useAttempt('That could not be kept.')
const post = usePost()
/** Where what was refused was typed: a person, or the weather. */
const where = ref<number | 'dry'>(0)
const typed = reactive(
  new Map<number, { planned: boolean; hours: string; skills: string; first: string; last: string; note: string }>(),
)
const dry = reactive({ start: '', end: '' })
const leads = (): boolean => session.may('say who is there')

function show(hands: Schemas['SeasonHandsOut']): void {
  found.value = hands
  for (const one of hands.people)
    if (!typed.has(one.member))
      typed.set(one.member, {
        planned: one.planned,
        hours: one.usual_hours ? '' : one.hours,
        skills: one.skills.join(', '),
        first: '',
        last: '',
        note: '',
      })
}
onMounted(() => at.read(async () => show(await answer(api.GET('/api/season/hands')))))
const keep = (who: number): Promise<boolean> => {
  where.value = who
  return at.run(async () => {
    const { planned, hours, skills } = typed.get(who)!
    show(await post('/api/season/hands/{person_id}', { person_id: who }, { planned, hours, skills }, { what: 'Hands' }))
  })
}
const away = (who: number): Promise<boolean> => {
  where.value = who
  return at.run(async () => {
    const mine = typed.get(who)!
    const body = { uuid: newUuid(), first: mine.first, last: mine.last || mine.first, note: mine.note }
    show(await post('/api/season/hands/{person_id}/away', { person_id: who }, body, { what: 'Away' }))
    mine.first = mine.last = mine.note = ''
  })
}
const back = (uuid: string): Promise<boolean> =>
  at.run(async () =>
    show(
      await post('/api/season/away/{away_id}/take-back', { away_id: uuid }, undefined as never, { what: 'Is here after all' }),
    ),
  )
const addDry = (): Promise<boolean> => {
  where.value = 'dry'
  return at.run(async () => {
    show(await post('/api/season/dry', undefined, { uuid: newUuid(), ...dry }, { what: 'Dry spell' }))
    dry.start = dry.end = ''
  })
}
const ask = (): Promise<boolean> => {
  where.value = 'dry'
  return at.run(async () => {
    await inquire((body) => api.POST('/api/season/forecast', { body }))
    show(await answer(api.GET('/api/season/hands')))
  })
}
const readFile = (file: File): Promise<boolean> => {
  where.value = 'dry'
  return at.run(async () => {
    const form = new FormData()
    form.append('file', file)
    show(await write(() => api.POST('/api/season/dry-file', asForm(form))))
  })
}
const wet = (uuid: string): Promise<boolean> =>
  at.run(async () =>
    show(
      await post('/api/season/dry/{dry_spell_id}/take-back', { dry_spell_id: uuid }, undefined as never, {
        what: 'No dry spell',
      }),
    ),
  )
</script>

<template>
  <PlanTabs />
  <section class="desk">
    <h1>Hands and weather</h1>
    <p class="quiet">
      Bays, yard and lifts are with <RouterLink to="/shop/places">the shop</RouterLink>; its hours hold for whoever has none of
      their own.
    </p>
    <p v-if="at.problem && !where" class="trouble" role="alert">{{ at.problem }}</p>
    <section v-for="one in found?.people ?? []" :key="one.member" class="card" :aria-label="one.name">
      <header class="tools">
        <h2>{{ one.name }}</h2>
        <span class="quiet"
          >{{ one.planned ? `${one.hours}${one.usual_hours ? ' (the shop’s hours)' : ''}` : 'Not planned for'
          }}<template v-if="one.skills.length">; {{ one.skills.join(', ') }}</template></span
        >
      </header>
      <details v-if="leads()">
        <summary>Hours, skills, days off</summary>
        <label><input v-model="typed.get(one.member)!.planned" type="checkbox" /> Work is planned for {{ one.name }}</label>
        <form class="tools" @submit.prevent="keep(one.member)">
          <label>Hours <InputText v-model="typed.get(one.member)!.hours" maxlength="300" placeholder="the shop’s" /></label>
          <label
            >Skills <InputText v-model="typed.get(one.member)!.skills" maxlength="300" :placeholder="found!.skills.join(', ')"
          /></label>
          <Button type="submit" severity="secondary" label="Keep" :disabled="at.busy" />
        </form>
        <form class="tools" @submit.prevent="away(one.member)">
          <label>Away from <input v-model="typed.get(one.member)!.first" type="date" required /></label>
          <label>to <input v-model="typed.get(one.member)!.last" type="date" /></label>
          <label>because <InputText v-model="typed.get(one.member)!.note" maxlength="120" /></label>
          <Button type="submit" severity="secondary" label="Add" :disabled="at.busy" />
        </form>
        <p v-if="at.problem && where === one.member" class="trouble" role="alert">{{ at.problem }}</p>
      </details>
      <ul v-if="one.away.length">
        <li v-for="off in one.away" :key="off.uuid" class="tools">
          Away {{ date(off.first) }}{{ off.last !== off.first ? ` to ${date(off.last)}` : ''
          }}{{ off.note ? `: ${off.note}` : '' }}
          <button v-if="leads()" type="button" class="link" @click="back(off.uuid)">Take back</button>
        </li>
      </ul>
    </section>
    <section class="card" aria-labelledby="dry">
      <h2 id="dry">Dry spells</h2>
      <p class="quiet">Work outside keeps to them. Behind the last one nobody knows, and nothing waits.</p>
      <ul v-if="found?.dry.length">
        <li v-for="one in found.dry" :key="one.uuid" class="tools">
          <span
            >{{ when(one.start) }} to {{ when(one.end) }} <small class="quiet">{{ one.source }}</small></span
          >
          <button v-if="leads()" type="button" class="link" @click="wet(one.uuid)">Take back</button>
        </li>
      </ul>
      <form v-if="leads()" class="tools" @submit.prevent="addDry">
        <label>From <input v-model="dry.start" type="datetime-local" required /></label>
        <label>to <input v-model="dry.end" type="datetime-local" required /></label>
        <Button type="submit" severity="secondary" label="Add" :disabled="at.busy" />
      </form>
      <div v-if="leads()" class="tools">
        <Button v-if="found?.forecast" severity="secondary" label="Ask the forecast" :loading="at.busy" @click="ask" />
        <FilePick label="From a calendar file" accept=".ics,text/calendar" @file="readFile" />
      </div>
      <p v-if="at.problem && where === 'dry'" class="trouble" role="alert">{{ at.problem }}</p>
    </section>
  </section>
</template>

<style scoped>
details > label {
  display: flex;
  align-items: center;
  gap: 8px;
}
summary {
  min-height: var(--target);
  display: flex;
  align-items: center;
  color: var(--accent);
  font-weight: 600;
  cursor: pointer;
}
details > * + * {
  margin-top: 8px;
}
</style>
