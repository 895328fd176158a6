<script setup lang="ts">
/** The next crop and header of a machine: what is to be set otherwise, in working order, and what is calibrated afterwards. */
import { computed, onMounted, reactive, ref, watch } from 'vue'
import Button from '@/design/controls/button'
import { api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import { CROP_NAMES } from '@/api/vocabulary'
import { counted } from '@/app/counted'
import { span } from '@/app/duration'
import { useAttempt } from '@/app/useAttempt'
import { useOnward } from '@/app/useOnward'
import { useSession } from '@/app/session'
import WholeNumber from '@/app/WholeNumber.vue'
import MachineTabs from '@/views/machine/MachineTabs.vue'
import ChangeItem from './ChangeItem.vue'
import { askedOf, cropsToChoose, type Chosen } from './changeover'

const props = defineProps<{ id: string }>()
const onward = useOnward()
const session = useSession()
const found = ref<Schemas['ChangeoverOut'] | null>(null)
const at = useAttempt('The changeover could not be worked out.')
const chosen = reactive<Chosen>({ crop: '', header: 0, then: '', days: null })
const path = { params: { path: { machine_id: Number(props.id) } } }
/** Pressed twice, or again after a lost answer, it is one changeover. */
let uuid = newUuid()
let asked = 0
async function look(): Promise<void> {
  const mine = ++asked
  await at.read(async () => {
    const answered = await write(() => api.POST('/api/machines/{machine_id}/changeover', { ...path, body: askedOf(chosen) }))
    if (mine !== asked) return
    found.value = answered
    chosen.header ||= answered.coupled[0] ?? 0
  })
}
onMounted(look)
watch(chosen, () => {
  uuid = newUuid() // another choice is another changeover
  void look()
})
const crops = computed(() => cropsToChoose(found.value?.grown ?? []))
const items = computed(() => found.value?.visits.flatMap((visit) => visit.items) ?? [])
const toSet = computed(() => items.value.filter((item) => item.todo === 'set'))
const toAsk = computed(() => items.value.filter((item) => item.todo === 'ask'))
const begin = (): Promise<boolean> =>
  at.run(async () => {
    const { crop, ...more } = askedOf(chosen)
    const body = { id: uuid, phase: 'changeover' as const, crop, people: [], take_in: false, ...more }
    const begun = await write(() => api.POST('/api/machines/{machine_id}/walk-arounds', { ...path, body }))
    await onward({ name: 'walk-around', params: { id: begun.id } })
  })
const card = computed(() => {
  const { crop, headers, then_crop, then_days } = askedOf(chosen)
  const query = new URLSearchParams({ crop })
  for (const one of headers) query.append('headers', String(one))
  if (then_crop) query.set('then_crop', then_crop)
  if (typeof then_days === 'number') query.set('then_days', String(then_days))
  return `/machines/${props.id}/changeover/card?${query}`
})
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <header class="tools">
      <h1 class="grow">{{ found ? `${found.machine.name}: changeover` : 'Changeover' }}</h1>
      <label
        >Next crop
        <select v-model="chosen.crop">
          <option value="">choose</option>
          <option v-for="one in crops" :key="one.key" :value="one.key">{{ one.name }}</option>
        </select></label
      >
      <label v-if="found?.headers.length"
        >with
        <select v-model="chosen.header">
          <option :value="0">no header</option>
          <option v-for="one in found.headers" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select></label
      >
      <label
        >and then
        <select v-model="chosen.then">
          <option value="">not known</option>
          <option v-for="one in crops" :key="one.key" :value="one.key">{{ one.name }}</option>
        </select></label
      >
      <label v-if="chosen.then"
        >in <WholeNumber v-model="chosen.days" optional :invalid="at.field === 'then_days'" /> days</label
      >
    </header>
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <p v-if="found?.running" class="note">
      A changeover of this machine is under way.
      <RouterLink :to="{ name: 'walk-around', params: { id: found.running } }">Go on with it</RouterLink>
    </p>
    <p v-if="found && !chosen.crop" class="quiet">Choose the crop that comes. What stands right already is not on the list.</p>
    <template v-if="found && chosen.crop">
      <div class="tools sum">
        <p class="grow" aria-live="polite">
          <b>{{ toSet.length ? counted(toSet.length, 'item to set', 'items to set') : 'Nothing to set' }}</b><template
            v-if="toAsk.length"
            >, {{ counted(toAsk.length, 'to look at first', 'to look at first') }}</template
          >: {{ span(found.work_min + found.moving_min)
          }}<template v-if="found.hands > 1">, two people for part of it</template>.
        </p>
        <a :href="card" target="_blank" rel="noopener">Print the card</a>
        <Button
          v-if="session.may('start a walk-around') && items.length"
          label="Begin the changeover"
          :disabled="at.busy"
          @click="begin"
        />
      </div>
      <div class="columns">
        <div class="list">
          <section v-for="visit in found.visits" :key="visit.posture" class="card" :aria-label="visit.posture">
            <header class="visit">
              <h2>{{ visit.posture }}</h2>
              <span v-if="visit.minutes" class="quiet">{{ span(visit.minutes) }} to get there</span>
            </header>
            <p v-if="visit.lock" class="lock">{{ visit.lock }}</p>
            <ul class="items">
              <ChangeItem v-for="item in visit.items" :key="item.check" :item="item" />
            </ul>
          </section>
        </div>
        <aside>
          <section v-if="found.calibrations.length" class="card" aria-labelledby="calibrate">
            <h2 id="calibrate">Calibrate afterwards, in this order</h2>
            <ol class="then">
              <li v-for="one in found.calibrations" :key="one.key">
                {{ one.name }}<small class="quiet">{{ one.because }}</small>
              </li>
            </ol>
          </section>
          <section v-if="found.tools.length" class="card" aria-labelledby="tools">
            <h2 id="tools">Tools</h2>
            <p>{{ found.tools.join(', ') }}</p>
          </section>
          <section v-if="found.kept.length" class="card" aria-labelledby="kept">
            <h2 id="kept">Left as it is</h2>
            <p>{{ found.kept.join(', ') }}: changed back in {{ counted(chosen.days ?? 0, 'day') }}.</p>
          </section>
          <section v-if="found.right.length" class="card" aria-labelledby="right">
            <h2 id="right">Stands right already</h2>
            <p class="quiet">{{ found.right.join(', ') }}</p>
          </section>
        </aside>
      </div>
      <p class="quiet">
        For {{ CROP_NAMES[askedOf(chosen).crop as keyof typeof CROP_NAMES] }}. The operator’s manual goes before this list.
      </p>
    </template>
  </section>
</template>

<style scoped>
.sum {
  align-items: center;
}
.sum .grow {
  flex: 1 1 260px;
}
.note {
  border-left: 6px solid var(--accent);
  background: var(--surface);
  border-radius: var(--radius);
  padding: 8px 14px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(240px, 340px);
  gap: 16px;
  align-items: start;
}
.list,
aside {
  display: grid;
  gap: 12px;
}
.visit {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: baseline;
}
.visit h2::first-letter {
  text-transform: uppercase;
}
.lock {
  border-left: 4px solid var(--due);
  padding-left: 10px;
}
.items {
  list-style: none;
  margin: 0;
  padding: 0;
}
.then {
  margin: 0;
  padding-left: 26px;
  list-style: decimal;
}
.then li {
  padding: 3px 0;
}
.then small {
  display: block;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
