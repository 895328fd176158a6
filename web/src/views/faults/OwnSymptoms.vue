<script setup lang="ts">
/** What may be wrong with such a machine, symptom by symptom, and what the shop adds to it. */
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import AskOnce from '@/app/AskOnce.vue'
import Field from '@/app/Field.vue'
import { answer, api, type Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { counted } from '@/app/counted'
import { useAttempt } from '@/app/useAttempt'
import { useDraft } from '@/app/useDraft'
import { useSession } from '@/app/session'
import MachineTabs from '@/views/machine/MachineTabs.vue'
import OwnCauseForm from './OwnCauseForm.vue'
import { HOW_OFTEN } from './faults'

const props = defineProps<{ id: string }>()
const found = ref<Schemas['OwnSymptomsOut'] | null>(null)
const at = useAttempt('That could not be kept.')
const adding = useAttempt('That could not be kept.')
const post = usePost()
const session = useSession()
const path = { machine_id: Number(props.id) }
const asked = useRoute().query
/** The symptom that is open, and gets the cause. */
const symptom = ref(String(asked.symptom ?? ''))
onMounted(() =>
  at.read(async () => {
    found.value = await answer(api.GET('/api/faults/machines/{machine_id}/own-symptoms', { params: { path } }))
    typed.family ||= kinds.value[0]!.family
  }),
)
const about = (what: string) => ({ what, machine: found.value?.machine.name })
const { draft: typed, forget } = useDraft(
  `lumvek:own-symptom:${session.me?.id}:${props.id}`,
  () => ({ uuid: newUuid(), family: '', name: '', also: '', stations: [] as string[] }),
  (one) => !!(one.name || one.also),
)
const kinds = computed(() => found.value?.kinds ?? [])
const kind = computed(() => kinds.value.find((one) => one.family === typed.family) ?? kinds.value[0])
const addSymptom = (): Promise<boolean> =>
  adding.run(async () => {
    const { uuid, name, also } = typed
    const body = { uuid, name, also, stations: [...typed.stations], family: kind.value!.family }
    found.value = await post('/api/faults/machines/{machine_id}/own-symptoms', path, body, about('Own symptom'))
    symptom.value = found.value.symptoms.find((one) => one.own === uuid)?.key ?? ''
    forget(body)
    typed.family ||= body.family
  })
const takeAway = (what: 'own-symptoms' | 'own-causes', uuid: string): Promise<boolean> =>
  at.run(async () => {
    found.value =
      what === 'own-causes'
        ? await post(
            '/api/faults/machines/{machine_id}/own-causes/{own_cause_id}/take-away',
            { ...path, own_cause_id: uuid },
            undefined as never,
            about('Own cause taken away'),
          )
        : await post(
            '/api/faults/machines/{machine_id}/own-symptoms/{own_symptom_id}/take-away',
            { ...path, own_symptom_id: uuid },
            undefined as never,
            about('Own symptom taken away'),
          )
  })
const often = (weight: number): string => HOW_OFTEN.find((one) => weight >= one.weight)?.name ?? 'rarely'
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <header class="tools">
      <h1 class="grow">{{ found ? `${found.machine.name}: what may be wrong` : 'Symptoms' }}</h1>
      <RouterLink :to="{ name: 'faults', params: { id } }">All faults</RouterLink>
    </header>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <p v-if="!found && !at.problem" role="status">Loading</p>
    <template v-if="found">
      <p class="quiet">
        What the trade knows, and what this shop has added. What is added holds for every machine of its kind, in traces that
        begin after it.
      </p>
      <ul class="card symptoms">
        <li v-for="one in found.symptoms" :key="one.key">
          <div class="tools">
            <span class="grow"
              ><b>{{ one.name }}</b
              ><small class="quiet">{{
                [counted(one.causes.length, 'cause'), one.own ? 'own' : '', ...one.also.slice(0, 3)].filter(Boolean).join(', ')
              }}</small></span
            >
            <AskOnce
              v-if="one.own && found.may_change"
              plain
              label="Take away"
              :named="`Take away: ${one.name}`"
              question="It is traced no more. What was traced keeps it."
              yes="Take it away"
              :disabled="at.busy"
              @yes="takeAway('own-symptoms', one.own)"
            />
            <button
              type="button"
              class="link"
              :aria-expanded="symptom === one.key"
              @click="symptom = symptom === one.key ? '' : one.key"
            >
              {{ symptom === one.key ? 'Close' : 'Causes' }}<span class="unseen"> of: {{ one.name }}</span>
            </button>
          </div>
          <template v-if="symptom === one.key">
            <ul class="causes">
              <li v-for="cause in one.causes" :key="cause.key" class="tools">
                <span class="grow"
                  >{{ cause.name
                  }}<small class="quiet"
                    >{{ often(cause.weight) }}; shown by: {{ cause.shown_by }}{{ cause.own ? '; own' : '' }}</small
                  ></span
                >
                <AskOnce
                  v-if="cause.own && found.may_change"
                  plain
                  label="Take away"
                  :named="`Take away: ${cause.name}`"
                  question="It is looked for no more. What was traced keeps it."
                  yes="Take it away"
                  :disabled="at.busy"
                  @yes="takeAway('own-causes', cause.own)"
                />
              </li>
            </ul>
            <OwnCauseForm
              v-if="found.may_change"
              :key="one.key"
              :found="found"
              :symptom="one"
              :name="asked.symptom === one.key ? String(asked.name ?? '') : ''"
              @added="(now) => (found = now)"
            />
          </template>
        </li>
      </ul>
      <form v-if="found.may_change" class="card own" data-kept aria-labelledby="add" @submit.prevent="addSymptom">
        <h2 id="add">A symptom that is not listed</h2>
        <Field v-if="kinds.length > 1" label="It is of" name="family" :at="adding">
          <select v-model="typed.family" @change="typed.stations = []">
            <option v-for="one in kinds" :key="one.family" :value="one.family">{{ one.name }}</option>
          </select>
        </Field>
        <Field label="What is noticed" name="name" :at="adding"><InputText v-model="typed.name" maxlength="120" /></Field>
        <Field label="Other words for it" name="also" :at="adding"
          ><InputText v-model="typed.also" maxlength="300" placeholder="squeals, chirps when cold"
        /></Field>
        <fieldset v-if="kind" class="tools">
          <legend>Where it shows</legend>
          <label v-for="one in kind.stations" :key="one.key"
            ><input v-model="typed.stations" type="checkbox" :value="one.key" /> {{ one.name }}</label
          >
        </fieldset>
        <p v-if="adding.problem && !['family', 'name', 'also'].includes(adding.field)" class="trouble" role="alert">
          {{ adding.problem }}
        </p>
        <Button type="submit" severity="secondary" label="Add the symptom" :disabled="adding.busy" />
      </form>
    </template>
  </section>
</template>

<style scoped>
.symptoms > li + li {
  border-top: 1px solid var(--line);
}
.symptoms .tools {
  flex-wrap: nowrap;
  padding: 6px 0;
}
.symptoms small {
  display: block;
}
.causes {
  margin: 4px 0 12px;
  padding-left: 16px;
  border-left: 3px solid var(--line);
}
.own {
  display: grid;
  gap: 12px;
  justify-items: start;
}
.own > .field-of {
  width: min(100%, 34rem);
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  padding: 0;
  font-weight: 600;
}
</style>
