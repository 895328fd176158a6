<script setup lang="ts">
/** Work that comes round: what is over, due and soon, and one tap when it is done. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { onMounted, reactive, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import { figureIfTyped } from '@/app/figures'
import { useAttempt } from '@/app/useAttempt'
import { upper } from '@/app/words'

const props = defineProps<{ machine: number }>()
const emit = defineEmits<{ kept: [] }>()
type Service = Schemas['ServiceDueOut']
const data = ref<Schemas['ServicesOut'] | null>(null)
const at = useAttempt('It could not be saved.')
const writing = reactive({ key: '', counter: '', day: '', note: '', uuid: '' })
const path = { params: { path: { machine_id: props.machine } } }
const SAID: Record<Service['state'], string> = {
  overdue: 'Over',
  due: 'Due',
  soon: 'Soon',
  later: 'Later',
  unknown: 'Not on record',
}
const MARK: Record<Service['state'], string> = { overdue: '▲', due: '◆', soon: '◐', later: '○', unknown: '?' }
const load = (): Promise<boolean> =>
  at.read(async () => void (data.value = await answer(api.GET('/api/logbook/machines/{machine_id}/services', path))))
onMounted(load)
defineExpose({ load })

function begin(one: Service): void {
  Object.assign(writing, {
    key: writing.key === one.key ? '' : one.key,
    counter: data.value?.counter == null ? '' : String(data.value.counter),
    day: new Date().toLocaleDateString('sv'),
    note: '',
    uuid: newUuid(),
  })
  at.problem = ''
}
async function takeBack(one: Service): Promise<void> {
  const params = { path: { machine_id: props.machine, done: one.record! } }
  if (
    await at.run(
      async () =>
        void (data.value = await write(() =>
          api.POST('/api/logbook/machines/{machine_id}/services/{done}/take-back', { params }),
        )),
    )
  )
    emit('kept')
}
async function keep(): Promise<void> {
  const done = await at.run(async () => {
    const { uuid, key, day, note } = writing
    const body = { uuid, key, day: day || null, counter: figureIfTyped(writing.counter, 'counter'), note }
    data.value = await write(() => api.POST('/api/logbook/machines/{machine_id}/services', { ...path, body }))
  })
  if (done) {
    writing.key = ''
    emit('kept')
  }
}
</script>

<template>
  <section class="card" aria-labelledby="services">
    <h2 id="services">Services</h2>
    <p v-if="at.problem && !writing.key" class="problem" role="alert">{{ at.problem }}</p>
    <ul v-if="data">
      <li v-for="one in data.services" :key="one.key" :class="one.state">
        <span class="mark" aria-hidden="true">{{ MARK[one.state] }}</span>
        <div>
          <p>
            <b :title="one.how">{{ one.name }}</b>
          </p>
          <p class="quiet">
            <span class="state">{{ SAID[one.state] }}</span><template v-if="one.left">, {{ one.left }}</template
            >. {{ upper(one.interval) }};
            <template v-if="one.state === 'unknown'">when it was last done is not on record</template
            ><template v-else>last {{ one.last }}</template
            >.
            <button
              v-if="one.record && data.may_record"
              type="button"
              class="link"
              :aria-label="`Take back that it was done: ${one.name}`"
              :disabled="at.busy"
              @click="takeBack(one)"
            >
              Take back
            </button>
          </p>
        </div>
        <Button
          v-if="data.may_record"
          size="small"
          severity="secondary"
          label="Done"
          :aria-label="`Done: ${one.name}`"
          :aria-expanded="writing.key === one.key"
          @click="begin(one)"
        />
        <form v-if="writing.key === one.key" class="tools" @submit.prevent="keep">
          <p class="wide">{{ one.how }}</p>
          <label>On <input v-model="writing.day" type="date" /></label
          ><label
            >at
            <InputText v-model="writing.counter" v-focus class="short" inputmode="decimal" :invalid="at.field === 'counter'" />
            {{ data.unit }}</label
          >
          <InputText v-model="writing.note" maxlength="300" placeholder="Note, if any" aria-label="Note" />
          <Button type="submit" label="Save" :disabled="at.busy" /><Button
            type="button"
            text
            severity="secondary"
            label="Cancel"
            data-out
            @click="writing.key = ''"
          />
          <p v-if="at.problem" class="problem" role="alert">{{ at.problem }}</p>
        </form>
      </li>
    </ul>
    <p v-if="data && !data.services.length" class="quiet">Nothing comes round on this kind of machine.</p>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) auto;
  gap: 4px 8px;
  align-items: start;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
  line-height: 1.25;
}
.mark {
  font-size: 1.05rem;
  text-align: center;
}
.overdue .mark,
.overdue .state {
  color: var(--stop);
}
.due .mark,
.due .state {
  color: var(--due);
}
.soon .mark,
.soon .state {
  color: var(--watch);
}
.later .mark {
  color: var(--sound);
}
.unknown .mark {
  color: var(--quiet);
}
.state {
  font-weight: 600;
}
form {
  grid-column: 1 / -1;
}
.short {
  width: 104px;
}
.wide {
  flex-basis: 100%;
}
</style>
