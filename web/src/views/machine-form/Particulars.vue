<script setup lang="ts">
/** What a machine is: changed here, copied for its twin, sold or scrapped and brought back. */
import Button from '@/design/controls/button'
import { computed, onMounted, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import AskOnce from '@/app/AskOnce.vue'
import { counted } from '@/app/counted'
import { useSession } from '@/app/session'
import { useAttempt } from '@/app/useAttempt'
import { date } from '@/app/words'
import MachineTabs from '@/views/machine/MachineTabs.vue'
import MachineFields from './MachineFields.vue'
import MachinePictures from './MachinePictures.vue'
import OptionList from './OptionList.vue'

const props = defineProps<{ id: string }>()
const session = useSession()
const path = { params: { path: { machine_id: Number(props.id) } } }
const stands = ref<Schemas['ParticularsOut'] | null>(null)
const machine = ref<Schemas['ParticularsIn'] | null>(null)
const options = ref<Record<string, boolean>>({})
const kinds = ref<Schemas['KindsOut'] | null>(null)
const reading = useAttempt('The machine could not be read.')
const saving = useAttempt('It could not be saved.')
const moving = useAttempt()
const saved = ref(false)
const locked = computed(() => !stands.value?.may_change)

function take(found: Schemas['ParticularsOut']): void {
  stands.value = found
  machine.value = { ...found }
  options.value = Object.fromEntries(found.asked.map((one) => [one.key, !!found.options?.includes(one.key)]))
}
onMounted(() =>
  reading.run(async () => {
    if (session.may('add machines')) kinds.value = await answer(api.GET('/api/machines/kinds'))
    take(await answer(api.GET('/api/machines/{machine_id}/particulars', path)))
  }),
)
/** What is typed stands; only the pictures are looked at anew. */
const reload = (): Promise<boolean> =>
  reading.read(async () => void (stands.value = await answer(api.GET('/api/machines/{machine_id}/particulars', path))))
const keep = (): Promise<boolean> =>
  saving.run(async () => {
    const body = { ...machine.value!, options: Object.keys(options.value).filter((key) => options.value[key]) }
    take(await write(() => api.POST('/api/machines/{machine_id}/particulars', { ...path, body })))
    saved.value = true
  })
const putOut = (why: 'sold' | 'scrapped'): Promise<boolean> =>
  moving.run(async () => take(await write(() => api.POST('/api/machines/{machine_id}/gone', { ...path, body: { why } }))))
const bringBack = (): Promise<boolean> =>
  moving.run(async () => take(await write(() => api.POST('/api/machines/{machine_id}/back', path))))
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <p v-if="reading.problem" class="trouble" role="alert">{{ reading.problem }}</p>
    <p v-else-if="!stands" class="quiet" role="status">Reading the machine …</p>
    <template v-if="stands && machine">
      <header>
        <h1>{{ stands.machine.name }}</h1>
        <p class="quiet">
          {{ stands.machine.kind }} {{ stands.machine.model
          }}<template v-if="stands.model.counts.length"
            >:
            {{
              stands.model.counts.map((one) => counted(one.count, one.name.toLowerCase(), one.many.toLowerCase())).join(', ')
            }}</template
          >
        </p>
      </header>
      <p v-if="stands.gone" class="gone" role="status">
        {{ stands.gone === 'sold' ? 'Sold' : 'Scrapped' }} {{ stands.gone_on ? date(stands.gone_on) : '' }}. It is in no list;
        its logbook stays.
        <Button v-if="!locked" size="small" severity="secondary" label="Bring it back" @click="bringBack" />
      </p>
      <form class="card" aria-label="What this machine is" novalidate @submit.prevent="keep" @input="saved = false">
        <MachineFields
          v-model="machine"
          :at="saving"
          :has-rows="!!stands.rows"
          :is-header="stands.machine.is_header"
          :owners="kinds?.owners ?? []"
          :combines="kinds?.combines ?? []"
          :disabled="locked"
        />
        <template v-if="stands.asked.length">
          <b>What it has</b>
          <OptionList v-model="options" :options="stands.asked" :disabled="locked" />
        </template>
        <p v-if="saving.problem && !saving.field" class="problem" role="alert">{{ saving.problem }}</p>
        <div v-if="!locked" class="tools">
          <Button type="submit" label="Save" :disabled="saving.busy" />
          <span v-if="saved" role="status">Saved, for walk-arounds that begin from now on.</span>
        </div>
      </form>
      <MachinePictures
        :machine="Number(id)"
        :name="stands.machine.name"
        :pictures="stands.pictures"
        @changed="(found) => (stands = found)"
        @reload="reload"
      />
      <p v-if="moving.problem" class="trouble" role="alert">{{ moving.problem }}</p>
      <div v-if="!locked" class="tools">
        <a class="out" :href="`/machines/${id}/label.pdf`" target="_blank" rel="noopener">Label to print</a>
        <RouterLink class="out" :to="{ name: 'new-machine', query: { like: id } }">Add another like it</RouterLink>
        <template v-if="!stands.gone">
          <AskOnce
            label="Sold"
            severity="secondary"
            :question="`${stands.machine.name} leaves every list. Its logbook stays, and it can be brought back.`"
            yes="It is sold"
            @yes="putOut('sold')"
          />
          <AskOnce
            label="Scrapped"
            severity="secondary"
            :question="`${stands.machine.name} leaves every list. Its logbook stays, and it can be brought back.`"
            yes="It is scrapped"
            @yes="putOut('scrapped')"
          />
        </template>
      </div>
    </template>
  </section>
</template>

<style scoped>
.gone {
  padding: 10px 14px;
  border-left: 4px solid var(--not-seen);
  background: var(--sunk);
  border-radius: 4px;
}
</style>
