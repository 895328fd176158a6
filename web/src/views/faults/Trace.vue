<script setup lang="ts">
/** One fault on the way to its cause: what to look at next and why, what it may still be, what was seen, how it ends. */
import { computed, nextTick, onMounted, ref } from 'vue'
import { answer, api } from '@/api/client'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { moment, upper } from '@/app/words'
import { useAttempt } from '@/app/useAttempt'
import { useSession } from '@/app/session'
import MachineTabs from '@/views/machine/MachineTabs.vue'
import CauseBars from './CauseBars.vue'
import LookInHand from './LookInHand.vue'
import TraceEnd from './TraceEnd.vue'
import { OUTCOMES, whole, type Look, type Trace } from './faults'

const props = defineProps<{ id: string; trace: string }>()
const found = ref<Trace | null>(null)
const session = useSession()
const at = useAttempt('That could not be kept.')
const post = usePost()
const path = { trace_id: props.trace }
onMounted(() =>
  at.read(async () => void (found.value = await answer(api.GET('/api/faults/traces/{trace_id}', { params: { path } })))),
)
/** What the technician took, where it is another than the best. */
const taken = ref('')
/** Whoever takes another look wants to see it. */
async function take(look: string): Promise<void> {
  taken.value = look
  await nextTick()
  document.getElementById('look')?.focus()
}
const looks = computed(() => found.value?.looks ?? [])
const inHand = computed<Look | undefined>(() => looks.value.find((one) => one.key === taken.value) ?? looks.value[0])
const others = computed(() => looks.value.filter((one) => one.key !== inHand.value?.key))
const open = computed(() => !found.value?.outcome && found.value?.may_trace)
const about = (what: string) => ({ what, machine: found.value?.machine.name })
const endDraft = `lumvek:fault-end:${session.me?.id}:${props.trace}`
const draftOf = (look: Look): string => `lumvek:look:${session.me?.id}:${props.trace}:${look.key}`
/** One UUID a look until it is answered: a lost answer is sent again under the same. */
const uuids: Record<string, string> = {}
const say = (look: Look, bad: boolean, words: string, locked: boolean): Promise<boolean> =>
  at.run(async () => {
    const body = { uuid: (uuids[look.key] ??= newUuid()), look: look.key, bad, words, locked }
    found.value = await post('/api/faults/traces/{trace_id}/answers', path, body, about(look.name))
    delete uuids[look.key]
    localStorage.removeItem(draftOf(look))
    taken.value = ''
  })
const takeBack = (look_answer_id: string): Promise<boolean> =>
  at.run(
    async () =>
      void (found.value = await post(
        '/api/faults/answers/{look_answer_id}/take-back',
        { look_answer_id },
        undefined as never,
        about('Take back'),
      )),
  )
const end = (said: Parameters<typeof post<'/api/faults/traces/{trace_id}/end'>>[2]): Promise<boolean> =>
  at.run(async () => {
    found.value = await post('/api/faults/traces/{trace_id}/end', path, said, about('Fault ended'))
    localStorage.removeItem(endDraft)
  })
const goOn = (): Promise<boolean> =>
  at.run(
    async () =>
      void (found.value = await post('/api/faults/traces/{trace_id}/go-on', path, undefined as never, about('Fault goes on'))),
  )
const heardWords = computed(() => upper(found.value?.heard?.names.join(', ') ?? ''))
const sure = computed(() => found.value?.causes.find((one) => one.key === found.value?.sure))
const was = computed(
  () => found.value?.otherwise || found.value?.causes.find((one) => one.key === found.value?.cause)?.name || '',
)
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <header class="tools">
      <div class="grow">
        <h1>{{ found ? `${found.machine.name}: ${found.symptom[0]!.toLowerCase()}${found.symptom.slice(1)}` : 'Fault' }}</h1>
        <p v-if="found" class="quiet">
          {{ found.words ? `“${found.words}”, ` : '' }}{{ found.by }}, {{ moment(found.begun_at)
          }}{{ found.header ? `. On ${found.header}` : '' }}
        </p>
      </div>
      <RouterLink :to="{ name: 'faults', params: { id } }">All faults</RouterLink>
    </header>
    <p v-if="at.problem && !at.field" class="trouble" role="alert">{{ at.problem }}</p>
    <p v-if="found?.outcome" class="ended" role="status">
      <b>{{ OUTCOMES[found.outcome] }}{{ was ? `: ${was}` : '' }}</b>
      {{ found.ended_by }}, {{ moment(found.ended_at!) }}.
      <template v-if="found.outcome === 'found' && found.looked.length"
        >{{ Math.round(found.minutes) }} min of looking; along the machine it would have been
        {{ Math.round(found.plain_minutes) }} min.
      </template>
      <template v-if="found.gone === 'other-speed'">Gone since a speed or range was changed: that is not cured.</template>
      <template v-if="found.outcome === 'found' && found.loosens.length">
        What it may have loosened is noted for the next round: {{ found.loosens.join(', ') }}.
      </template>
      <RouterLink
        v-if="found.walk_around && found.looked.some((one) => one.check)"
        :to="{ name: 'findings', params: { id: found.walk_around } }"
        >Findings and parts</RouterLink
      >
      <RouterLink
        v-if="found.may_add && found.outcome === 'found' && found.otherwise"
        :to="{ name: 'own-symptoms', params: { id }, query: { symptom: found.symptom_key, name: found.otherwise } }"
        >Look for it the next time</RouterLink
      >
      <button v-if="found.may_trace" type="button" class="link" :disabled="at.busy" @click="goOn">
        That was not it: go on
      </button>
    </p>
    <div v-if="found" class="halves">
      <div>
        <p v-if="sure && open" class="sure" role="status">
          Nearly certain: <b>{{ sure.name }}</b>.
        </p>
        <p v-else-if="found.all_clear && open" class="sure" role="status">
          Everything listed is ruled out. It is something else: say what, or let it be watched.
        </p>
        <LookInHand
          v-if="open && inHand"
          :key="inHand.key"
          :look="inHand"
          :walk-around="found.walk_around ?? ''"
          :best="inHand.key === looks[0]?.key"
          :attempt="at"
          :draft="draftOf(inHand)"
          @said="(bad: boolean, words: string, locked: boolean) => say(inHand!, bad, words, locked)"
        />
        <p v-else-if="open" class="quiet">There is nothing left to look at.</p>
        <section v-if="found.turns && (open || found.heard)" class="card" aria-label="Recording">
          <p>
            <template v-if="found.heard"
              ><b>{{ found.heard.names.length ? `${heardWords}.` : 'The recording names none of it.' }}</b>
              <span class="quiet"> {{ moment(found.heard.at) }}</span></template
            >
            <template v-else>Some of it turns: a recording tells which shaft shakes, before anything is opened.</template>
          </p>
          <div class="tools">
            <RouterLink
              v-if="found.heard"
              :to="{ name: 'recording', params: { id, recording: found.heard.recording }, query: { trace } }"
              >Look at it</RouterLink
            >
            <RouterLink v-if="open" :to="{ name: 'recordings', params: { id }, query: { trace } }">{{
              found.heard ? 'Record again' : 'Record how it shakes'
            }}</RouterLink>
          </div>
        </section>
        <section v-if="open && others.length" class="card" aria-labelledby="others">
          <h2 id="others">Or look at this</h2>
          <ul class="listed">
            <li v-for="one in others" :key="one.key">
              <button type="button" class="link grow" @click="take(one.key)">{{ one.name }}</button>
              <span class="quiet">{{ whole(one) }} min</span>
              <small class="quiet">{{ one.why }}</small>
            </li>
          </ul>
        </section>
        <section v-if="found.looked.length" class="card" aria-labelledby="looked">
          <h2 id="looked">Looked at</h2>
          <ul class="listed">
            <li v-for="one in found.looked" :key="one.look">
              <span class="grow"
                ><b>{{ one.bad ? '✗' : '✓' }} {{ one.name }}</b
                ><small class="quiet">{{
                  [one.bad ? 'something is wrong there' : 'all right', one.words, one.by].filter(Boolean).join(', ')
                }}</small></span
              >
              <button v-if="one.uuid && open" type="button" class="link" :disabled="at.busy" @click="takeBack(one.uuid)">
                Take back
              </button>
              <RouterLink
                v-else-if="one.check && found.walk_around"
                :to="{ name: 'walk-around', params: { id: found.walk_around }, query: { check: one.check } }"
                >Readings</RouterLink
              >
            </li>
          </ul>
        </section>
      </div>
      <div>
        <section class="card" aria-labelledby="causes">
          <h2 id="causes">What it may be</h2>
          <CauseBars :causes="found.causes" :sure="found.sure" />
        </section>
        <TraceEnd v-if="open" :trace="found" :attempt="at" :draft="endDraft" @end="end" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.halves {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 16px 20px;
  align-items: start;
}
.halves > div {
  display: grid;
  gap: 16px;
}
.sure,
.ended {
  border-left: 6px solid var(--accent);
  background: var(--surface);
  padding: 10px 14px;
}
@media (max-width: 900px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
