<script setup lang="ts">
/** A job that follows from nothing else: typed, planned with the others; or one that was typed, changed. */
import { computed, reactive, ref, watch } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { answer, api, type Schemas } from '@/api/client'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { useAttempt } from '@/app/useAttempt'
import WholeNumber from '@/app/WholeNumber.vue'

const props = defineProps<{
  /** The job that is changed; none: another one. */
  edits: string
}>()
const emit = defineEmits<{ added: []; left: [] }>()
const machines = ref<Schemas['MachineNameOut'][]>([])
const skills = ref<string[]>([])
const open = ref(false)
const at = useAttempt('The job could not be kept.')
const post = usePost()
const blank = {
  machine: 0,
  name: '',
  minutes: 60,
  hands: 1,
  place: 'bay' as Schemas['OwnJobIn']['place'],
  skill: '',
  lift: false,
}
const job = reactive({ ...blank })
const PLACES = { bay: 'in the bay', outside: 'outside', bench: 'at the bench', field: 'in the field' }
const named = computed(() => machines.value.find((one) => one.id === job.machine)?.name ?? '')

async function show(): Promise<void> {
  open.value = true
  await at.read(async () => {
    machines.value = await answer(api.GET('/api/machines/names'))
    skills.value = (await answer(api.GET('/api/season/hands'))).skills
    job.machine ||= machines.value[0]?.id ?? 0
  })
}
watch(
  () => props.edits,
  async (own_job_id) => {
    if (!own_job_id) return
    await show()
    await at.read(async () => {
      Object.assign(job, await answer(api.GET('/api/season/jobs/{own_job_id}', { params: { path: { own_job_id } } })))
    })
  },
)
const keep = (): Promise<boolean> =>
  at.run(async () => {
    const about = { what: `${named.value}: ${job.name}` }
    if (props.edits) await post('/api/season/jobs/{own_job_id}', { own_job_id: props.edits }, { ...job }, about)
    else await post('/api/season/jobs', undefined, { uuid: newUuid(), ...job }, about)
    leave()
    emit('added')
  })
function leave(): void {
  Object.assign(job, { ...blank, machine: job.machine })
  open.value = false
  emit('left')
}
</script>

<template>
  <button v-if="!open" type="button" class="link begin" @click="show">Add a job</button>
  <form v-else class="tools" :aria-label="edits ? 'Change the job' : 'Add a job'" @submit.prevent="keep">
    <label
      >Machine
      <select v-model="job.machine">
        <option v-for="one in machines" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select></label
    >
    <label>What is to be done <InputText v-model="job.name" maxlength="120" required :invalid="at.field === 'name'" /></label>
    <label>Minutes <WholeNumber v-model="job.minutes" :invalid="at.field === 'minutes'" /></label>
    <label
      >People
      <select v-model="job.hands">
        <option :value="1">1</option>
        <option :value="2">2</option>
      </select></label
    >
    <label
      >Where
      <select v-model="job.place">
        <option v-for="(name, key) in PLACES" :key="key" :value="key">{{ name }}</option>
      </select></label
    >
    <label
      >Skill
      <select v-model="job.skill">
        <option value="">none</option>
        <option v-for="one in skills" :key="one">{{ one }}</option>
      </select></label
    >
    <label class="tick"><input v-model="job.lift" type="checkbox" /> with the lift</label>
    <Button
      type="submit"
      severity="secondary"
      :label="edits ? 'Change and plan again' : 'Add and plan again'"
      :disabled="at.busy"
    />
    <button type="button" class="link" @click="leave">Leave it</button>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
  </form>
</template>

<style scoped>
.begin.link {
  justify-self: start;
  padding: 0;
}
.tick {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
</style>
