<script setup lang="ts">
/** A cause that the shop has found of a symptom: what it was, how common it is, and what shows it. */
import { computed } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import type { Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import Field from '@/app/Field.vue'
import { upper } from '@/app/words'
import { figure } from '@/app/figures'
import { useAttempt } from '@/app/useAttempt'
import { useDraft } from '@/app/useDraft'
import { useSession } from '@/app/session'
import { HOW_OFTEN } from './faults'

const props = defineProps<{ found: Schemas['OwnSymptomsOut']; symptom: Schemas['OwnSymptomOut']; name: string }>()
const emit = defineEmits<{ added: [now: Schemas['OwnSymptomsOut']] }>()
const at = useAttempt('That could not be kept.')
const post = usePost()
const session = useSession()
const { draft: typed, forget } = useDraft(
  `lumvek:own-cause:${session.me?.id}:${props.symptom.key}`,
  () => ({ uuid: newUuid(), name: props.name, weight: 2, check: '', look: '', posture: '', how: '', minutes: '5' }),
  (one) => !!(one.name || one.look || one.how),
)
const checks = computed(() => props.found.kinds.find((one) => one.family === props.symptom.family)?.checks ?? [])
const add = (): Promise<boolean> =>
  at.run(async () => {
    // Where a check shows it, how long it takes is known, and nothing is typed.
    const minutes = typed.check ? 5 : figure(typed.minutes, 'minutes')
    const sent = { ...typed }
    const { uuid, name, weight, check, look, posture, how } = sent
    const now = await post(
      '/api/faults/machines/{machine_id}/own-causes',
      { machine_id: props.found.machine.id },
      { uuid, symptom: props.symptom.key, name, weight, check, look, posture, how, minutes },
      { what: 'Own cause', machine: props.found.machine.name },
    )
    forget(sent)
    if (typed.name === props.name) typed.name = ''
    emit('added', now)
  })
const AT_FIELDS = ['name', 'weight', 'check', 'look', 'posture', 'minutes', 'how']
</script>

<template>
  <form :aria-label="`A cause of: ${symptom.name}`" data-kept @submit.prevent="add">
    <h3>A cause that is not listed</h3>
    <div class="fields">
      <Field label="It was" name="name" :at="at"><InputText v-model="typed.name" maxlength="120" /></Field>
      <Field label="It is found" name="weight" :at="at">
        <select v-model="typed.weight" aria-label="It is found">
          <option v-for="one in HOW_OFTEN" :key="one.weight" :value="one.weight">{{ one.name }}</option>
        </select>
      </Field>
      <Field label="Shown by" name="check" :at="at">
        <select v-model="typed.check" aria-label="Shown by">
          <option value="">something else, as written here</option>
          <option v-for="one in checks" :key="one.key" :value="one.key">{{ one.name }}</option>
        </select>
      </Field>
      <template v-if="!typed.check">
        <Field label="Look at" name="look" :at="at"><InputText v-model="typed.look" maxlength="120" /></Field>
        <Field label="It stands" name="posture" :at="at">
          <select v-model="typed.posture" aria-label="It stands">
            <option value="">choose</option>
            <option v-for="one in found.postures" :key="one" :value="one">{{ upper(one) }}</option>
          </select>
        </Field>
        <Field label="It takes, min" name="minutes" :at="at"
          ><InputText v-model="typed.minutes" inputmode="decimal" maxlength="5"
        /></Field>
        <Field class="whole" label="How one sees it" name="how" :at="at"
          ><InputText v-model="typed.how" maxlength="300"
        /></Field>
      </template>
    </div>
    <p v-if="at.problem && !AT_FIELDS.includes(at.field)" class="trouble" role="alert">{{ at.problem }}</p>
    <Button type="submit" severity="secondary" label="Add the cause" :disabled="at.busy" />
  </form>
</template>

<style scoped>
form {
  margin: 0 0 16px;
}
h3 {
  margin: 0 0 6px;
  font-size: 1rem;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(240px, 100%), 1fr));
  gap: 10px 16px;
  margin-bottom: 12px;
}
.whole {
  grid-column: 1 / -1;
}
</style>
