<script setup lang="ts">
/** The machine's counter: what it stands at, read by hand, from its modem, or after the meter was exchanged. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, onMounted, reactive, ref } from 'vue'
import { inquire } from '@/app/inquiry'
import { answer, api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import AskOnce from '@/app/AskOnce.vue'
import { counted } from '@/app/counted'
import { date } from '@/app/words'
import { figure, figureIfTyped } from '@/app/figures'
import { useAttempt } from '@/app/useAttempt'

const props = defineProps<{ machine: number; mayRecord: boolean }>()
const emit = defineEmits<{ kept: [] }>()
const data = ref<Schemas['CountersOut'] | null>(null)
const at = useAttempt('The counter could not be saved.')
const typed = reactive({ shown: '', old: '', exchanged: false, unit: '' as '' | 'h' | 'ha', uuid: newUuid() })
const path = { params: { path: { machine_id: props.machine } } }
/** As a meter shows it, with its unit or without. */
const bare = (text: string): string => text.replace(/\s*(h|ha)\s*$/i, '')
const newest = computed(() => data.value?.readings.find((one) => !one.withdrawn && one.unit === data.value?.unit))

onMounted(() =>
  at.read(async () => void (data.value = await answer(api.GET('/api/logbook/machines/{machine_id}/counters', path)))),
)

async function keep(confirmed = false): Promise<void> {
  const done = await at.run(async () => {
    data.value = await write(() =>
      api.POST('/api/logbook/machines/{machine_id}/counters', {
        ...path,
        body: {
          uuid: typed.uuid,
          shown: figure(bare(typed.shown), 'shown'),
          unit: typed.unit,
          confirmed,
          exchanged: typed.exchanged,
          old_shown: typed.exchanged ? figureIfTyped(bare(typed.old), 'old_shown') : null,
        },
      }),
    )
  })
  if (!done) return
  Object.assign(typed, { shown: '', old: '', exchanged: false, unit: '', uuid: newUuid() })
  emit('kept')
}
async function modem(): Promise<void> {
  if (
    await at.run(async () => {
      await inquire((body) => api.POST('/api/logbook/machines/{machine_id}/counters/telematics', { ...path, body }))
      data.value = await answer(api.GET('/api/logbook/machines/{machine_id}/counters', path))
    })
  )
    emit('kept')
}
async function withdraw(reading: string): Promise<void> {
  if (
    await at.run(
      async () =>
        void (data.value = await write(() =>
          api.POST('/api/logbook/machines/{machine_id}/counters/{reading}/withdraw', {
            params: { path: { machine_id: props.machine, reading } },
          }),
        )),
    )
  )
    emit('kept')
}
</script>

<template>
  <section class="card" aria-labelledby="counter">
    <h2 id="counter">Counter</h2>
    <template v-if="data">
      <p class="big">
        <b>{{ data.now === null ? 'not known' : Math.round(data.now * 10) / 10 }}</b> {{ data.now === null ? '' : data.unit }}
        <template v-if="data.also !== null"
          >and <b>{{ Math.round(data.also) }}</b> ha</template
        >
        <small v-if="newest" class="quiet">{{ newest.source }}, {{ date(newest.at) }}, {{ newest.by }}</small>
      </p>
      <form v-if="mayRecord" class="tools" @submit.prevent="keep()">
        <label class="unseen" for="shown">The meter shows, in {{ data.unit }}</label>
        <InputText
          id="shown"
          v-model="typed.shown"
          class="short"
          inputmode="decimal"
          :placeholder="`meter shows, ${typed.unit || data.unit}`"
          :invalid="at.field === 'shown'"
        />
        <select v-if="data.two" v-model="typed.unit" aria-label="Which meter">
          <option value="">h</option>
          <option value="ha">ha</option>
        </select>
        <Button type="submit" label="Save" severity="secondary" :disabled="at.busy" />
        <Button v-if="data.telematics" text severity="secondary" label="Ask its modem" :disabled="at.busy" @click="modem" />
        <label v-if="typed.exchanged" class="wide"
          >The old meter stood at
          <InputText
            v-model="typed.old"
            class="short"
            inputmode="decimal"
            placeholder="if known"
            :invalid="at.field === 'old_shown'"
        /></label>
      </form>
      <p v-if="at.problem" class="problem" role="alert">{{ at.problem }}</p>
      <div v-if="at.cures.length && typed.shown" class="tools">
        <Button v-if="at.cures.includes('confirm')" size="small" severity="secondary" label="It is right" @click="keep(true)" />
        <Button
          v-if="at.cures.includes('exchange') && !typed.exchanged"
          size="small"
          severity="secondary"
          label="The meter was exchanged"
          @click="typed.exchanged = true"
        />
      </div>
      <details>
        <summary>{{ counted(data.readings.length, 'reading') }}</summary>
        <ul>
          <li v-for="one in data.readings" :key="one.uuid" :class="{ withdrawn: one.withdrawn }">
            <b>{{ Math.round(one.total * 10) / 10 }} {{ one.unit }}</b>
            <span class="quiet"
              >{{ date(one.at) }}, {{ one.source }}, {{ one.by
              }}<template v-if="one.exchanged">, new meter at {{ one.shown }}</template
              ><template v-if="one.withdrawn">, withdrawn</template></span
            >
            <AskOnce
              v-if="mayRecord && !one.withdrawn"
              plain
              label="Withdraw"
              :named="`Withdraw ${one.total} ${one.unit} of ${date(one.at)}`"
              :question="`${Math.round(one.total * 10) / 10} ${one.unit} stays in the log and counts no more; type it again if it was right after all.`"
              yes="Withdraw it"
              @yes="withdraw(one.uuid)"
            />
          </li>
        </ul>
      </details>
    </template>
  </section>
</template>

<style scoped>
.big b {
  font-size: 1.5rem;
}
.big small {
  margin-left: 6px;
}
.short {
  width: 150px;
}
.wide {
  flex-basis: 100%;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: center;
  border-bottom: 1px solid var(--line);
}
.withdrawn b {
  text-decoration: line-through;
  color: var(--quiet);
}
summary {
  min-height: var(--target);
  display: flex;
  align-items: center;
  cursor: pointer;
  color: var(--accent);
  font-weight: 600;
}
</style>
