<script setup lang="ts">
/** What was worked out at the bench and kept with this machine. */
import { onMounted, ref } from 'vue'
import { answer, api, Refused, type Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import AskOnce from '@/app/AskOnce.vue'
import { useSession } from '@/app/session'
import { date } from '@/app/words'
import SeverityMark from '@/design/SeverityMark.vue'
import { toQuery, type Subject, type Texts } from '@/views/bench/address'

const props = defineProps<{ machine: number }>()
const post = usePost()
const session = useSession()
const kept = ref<Schemas['BenchResultOut'][]>([])
const subjects = ref(new Map<string, Subject>())
const problem = ref('')

async function attempt(what: () => Promise<void>): Promise<void> {
  try {
    await what()
    problem.value = ''
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'That could not be done.'
  }
}
onMounted(() =>
  attempt(async () => {
    kept.value = await answer(api.GET('/api/bench/log/{machine_id}', { params: { path: { machine_id: props.machine } } }))
    if (kept.value.length) subjects.value = new Map((await answer(api.GET('/api/bench'))).map((one) => [one.key, one]))
  }),
)
function query(one: Schemas['BenchResultOut']): Record<string, string> {
  const subject = subjects.value.get(one.subject)
  return { ...(subject ? toQuery(subject, one.texts as Texts, 'mm') : {}), machine: String(props.machine) }
}
const withdraw = (uuid: string): Promise<void> =>
  attempt(async () => {
    kept.value = await post(
      '/api/bench/log/{machine_id}/{result_id}/withdraw',
      { machine_id: props.machine, result_id: uuid },
      undefined as never,
      { what: 'Worked out at the bench: taken back' },
    )
  })
</script>

<template>
  <section v-if="kept.length || problem" aria-labelledby="bench-log">
    <h2 id="bench-log">Worked out at the bench</h2>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <ul>
      <li v-for="one in kept" :key="one.uuid">
        <SeverityMark v-if="one.mark" :severity="one.mark" />
        <span
          ><RouterLink :to="{ name: 'bench', params: { subject: one.subject }, query: query(one) }">{{ one.name }}</RouterLink>
          <b>{{ one.answer }}</b> {{ one.words }} <span class="quiet">{{ one.by }}, {{ date(one.at) }}</span></span
        >
        <AskOnce
          v-if="session.may('write in a machine\'s log')"
          plain
          label="Take back"
          :named="`Take back: ${one.name}, ${one.answer}`"
          question="It leaves this list and the logbook for good."
          yes="Take it back"
          @yes="withdraw(one.uuid)"
        />
      </li>
    </ul>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  line-height: 1.3;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
</style>
