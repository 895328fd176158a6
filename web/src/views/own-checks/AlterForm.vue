<script setup lang="ts">
/** A shipped check worded otherwise, or left out, with why. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, onMounted, reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import Field from '@/app/Field.vue'
import { useAttempt } from '@/app/useAttempt'

const props = defineProps<{ asked: { family: string; key: string } | null }>()
const emit = defineEmits<{ altered: [all: Schemas['OwnChecksOut']] }>()
const router = useRouter()
const form = ref<Schemas['CheckFormOut'] | null>(null)
const reading = useAttempt('The checks could not be read.')
const saving = useAttempt('It could not be saved.')
const typed = reactive({
  uuid: newUuid(),
  family: '',
  station: '',
  key: '',
  name: '',
  how: '',
  why: '',
  left_out: false,
  reason: '',
})
const kind = computed(() => form.value?.families.find((one) => one.family === typed.family))
const station = computed(() => kind.value?.stations.find((one) => one.key === typed.station))
const shipped = computed(() => station.value?.checks.find((one) => one.key === typed.key))
const open = computed(() => !!props.asked || !!form.value)

const load = (): Promise<boolean> =>
  reading.run(async () => {
    form.value = await answer(api.GET('/api/own-checks/form'))
    if (!props.asked) return
    const { family, key } = props.asked
    const at = form.value.families
      .find((one) => one.family === family)
      ?.stations.find((one) => one.checks.some((c) => c.key === key))
    Object.assign(typed, { family, key, station: at?.key ?? '' })
    const all = await answer(api.GET('/api/own-checks'))
    const there = all.altered.find((one) => one.family === family && one.key === key && one.holds)
    if (there) Object.assign(typed, there.own, { left_out: there.left_out, reason: there.reason })
  })
onMounted(() => props.asked && load())
function close(): void {
  form.value = null
  Object.assign(typed, {
    uuid: newUuid(),
    family: '',
    station: '',
    key: '',
    name: '',
    how: '',
    why: '',
    left_out: false,
    reason: '',
  })
  if (props.asked) void router.replace({ query: {} })
}
async function save(): Promise<void> {
  const body = { ...typed, station: undefined }
  let found: Schemas['OwnChecksOut'] | null = null
  if (await saving.run(async () => void (found = await write(() => api.POST('/api/own-checks/altered', { body }))))) {
    emit('altered', found!)
    close()
  }
}
</script>

<template>
  <p v-if="reading.problem" class="trouble" role="alert">{{ reading.problem }}</p>
  <div v-if="!open" class="tools">
    <Button severity="secondary" label="Word one otherwise, or leave it out" :disabled="reading.busy" @click="load" />
  </div>
  <form v-else-if="form" class="card" novalidate aria-label="A shipped check" @submit.prevent="save">
    <div class="row">
      <Field label="Kind of machine" name="family" :at="saving">
        <select v-model="typed.family" @change="typed.station = typed.key = ''">
          <option v-for="one in form.families" :key="one.family" :value="one.family">{{ one.name }}</option>
        </select>
      </Field>
      <Field label="Station" name="station" :at="saving">
        <select v-model="typed.station" :disabled="!kind" @change="typed.key = ''">
          <option v-for="one in kind?.stations" :key="one.key" :value="one.key">{{ one.name }}</option>
        </select>
      </Field>
      <Field label="Check" name="key" :at="saving">
        <select v-model="typed.key" :disabled="!station">
          <option v-for="one in station?.checks" :key="one.key" :value="one.key">{{ one.name }}</option>
        </select>
      </Field>
    </div>
    <template v-if="shipped">
      <p class="quiet">What stays empty is as shipped, in grey.</p>
      <Field label="Name" name="name" :at="saving"
        ><InputText v-model="typed.name" maxlength="80" :placeholder="shipped.name"
      /></Field>
      <Field label="How it is done" name="how" :at="saving"
        ><InputText v-model="typed.how" maxlength="400" :placeholder="shipped.how"
      /></Field>
      <Field label="Why" name="why" :at="saving"
        ><InputText v-model="typed.why" maxlength="400" :placeholder="shipped.why"
      /></Field>
      <p v-if="shipped.safety" class="quiet">A safety item stays in the walk-around.</p>
      <label v-else class="tick"><input v-model="typed.left_out" type="checkbox" /> Leave it out of walk-arounds</label>
      <Field label="Why it is so here" name="reason" :at="saving"><InputText v-model="typed.reason" maxlength="200" /></Field>
      <p v-if="saving.problem && !['name', 'how', 'why', 'reason', 'key'].includes(saving.field)" class="problem" role="alert">
        {{ saving.problem }}
      </p>
    </template>
    <div class="tools">
      <Button type="submit" label="Save" :disabled="saving.busy || !shipped" />
      <Button text severity="secondary" label="Cancel" data-out @click="close" />
    </div>
  </form>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(240px, 100%), 1fr));
  gap: 12px 16px;
}
.card :deep(input:not([type='checkbox'])),
select {
  width: 100%;
  min-height: var(--target);
}
.tick {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: var(--target);
}
</style>
