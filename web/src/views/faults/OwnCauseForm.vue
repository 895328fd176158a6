<script setup lang="ts">
/** A cause that the shop has found of a symptom: what it was, how common it is, and what shows it. */
import { computed } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import type { Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { upper } from '@/app/words'
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
    const minutes = Number(typed.minutes.replace(',', '.'))
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
const wrong = (field: string): boolean => at.field === field
</script>

<template>
  <form :aria-label="`A cause of: ${symptom.name}`" @submit.prevent="add">
    <h3>A cause that is not listed</h3>
    <div class="fields">
      <label>It was <InputText v-model="typed.name" maxlength="120" :invalid="wrong('name')" /></label>
      <label
        >It is found
        <select v-model="typed.weight" aria-label="It is found">
          <option v-for="one in HOW_OFTEN" :key="one.weight" :value="one.weight">{{ one.name }}</option>
        </select></label
      >
      <label
        >Shown by
        <select v-model="typed.check" aria-label="Shown by">
          <option value="">something else, as written here</option>
          <option v-for="one in checks" :key="one.key" :value="one.key">{{ one.name }}</option>
        </select></label
      >
      <template v-if="!typed.check">
        <label>Look at <InputText v-model="typed.look" maxlength="120" :invalid="wrong('look')" /></label>
        <label
          >It stands
          <select v-model="typed.posture" aria-label="It stands" :aria-invalid="wrong('posture')">
            <option value="">choose</option>
            <option v-for="one in found.postures" :key="one" :value="one">{{ upper(one) }}</option>
          </select></label
        >
        <label
          >It takes, min <InputText v-model="typed.minutes" inputmode="decimal" maxlength="5" :invalid="wrong('minutes')"
        /></label>
        <label class="whole">How one sees it <InputText v-model="typed.how" maxlength="300" :invalid="wrong('how')" /></label>
      </template>
    </div>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
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
.fields :is(select, :deep(input)) {
  display: block;
  width: 100%;
  margin-top: 4px;
}
.whole {
  grid-column: 1 / -1;
}
</style>
