<script setup lang="ts">
/** How a machine is set when the work begins: in the order it is set, with where one begins and what worked the last times. */
import { computed, nextTick, onMounted, reactive, ref, watch } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { answer, api, type Schemas } from '@/api/client'
import { outbox } from '@/api/outbox'
import { answeredOrKept, useOnItsWay } from '@/api/useOnItsWay'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { date, upper } from '@/app/words'
import NotTaken from '@/app/NotTaken.vue'
import { useAttempt } from '@/app/useAttempt'
import { useDraft } from '@/app/useDraft'
import { useSession } from '@/app/session'
import KeptSettings from './KeptSettings.vue'
import LookedBehind from './LookedBehind.vue'
import MachineTabs from '@/views/machine/MachineTabs.vue'

const props = defineProps<{ id: string }>()
const session = useSession()
const card = ref<Schemas['FieldCardOut'] | null>(null)
const at = useAttempt('That could not be kept.')
const post = usePost()
const path = { machine_id: Number(props.id) }
const empty = () => ({
  uuid: newUuid(),
  crop: '',
  place: '',
  condition: [] as string[],
  values: {} as Record<string, string>,
  why: '',
  units: session.me?.units ?? 'mm',
})
/** What is being typed, kept until the server has it, in the units that it was begun in. */
const { draft } = useDraft(`lumvek:field:${session.me?.id}:${props.id}`, empty, (kept) => !!Object.keys(kept.values).length)
const load = (): Promise<boolean> =>
  at.read(
    async () =>
      void (card.value = await answer(
        api.GET('/api/field/machines/{machine_id}/card', { params: { path, query: { crop: draft.crop } } }),
      )),
  )
onMounted(() => {
  if (!anything.value) draft.units = session.me?.units ?? 'mm'
  void load()
})
/** What worked, in the units that the field is in. */
function take(one: Schemas['FieldSettingOut']): void {
  if (one.worked) draft.values[one.key] = one.length && draft.units !== one.unit ? one.worked.shown : one.worked.value
}
watch(() => draft.crop, load)
function toggle(word: string): void {
  draft.condition = draft.condition.includes(word)
    ? draft.condition.filter((other) => other !== word)
    : [...draft.condition, word]
}
const CARD = '/api/field/machines/{machine_id}/card'
const { waiting, notTaken } = useOnItsWay(
  CARD,
  (answer, { crop }) => (crop === draft.crop ? (card.value = answer) : void load()),
  (entry) => Number(entry.params.machine_id) === path.machine_id,
)
/** "Fan speed 640, first cut 88.9 mm" */
const said = ({ values, units }: Schemas['SetInFieldIn']): string =>
  (card.value?.settings ?? [])
    .filter((one) => values[one.key])
    .map((one) => `${one.name} ${values[one.key]} ${one.length ? units : one.unit}`.trim())
    .join(', ')
const keep = (): Promise<boolean> =>
  at.run(async () => {
    const typed = Object.fromEntries(Object.entries(draft.values).filter(([, text]) => text.trim()))
    const { uuid, crop, place, why, units } = draft
    const body = { uuid, crop, place, condition: draft.condition.join(', '), values: typed, why, units }
    const about = { what: 'Set in the field', shown: said(body), machine: card.value?.machine.name }
    await answeredOrKept(uuid, post(CARD, path, body, about))
    // What was typed while the answer was on its way stands.
    for (const [key, text] of Object.entries(typed)) if (draft.values[key] === text) delete draft.values[key]
    if (draft.why === body.why) draft.why = ''
    if (!anything.value) draft.units = session.me?.units ?? 'mm'
    draft.uuid = newUuid()
  })
const worked = (field_setting_id: string, how: boolean): Promise<boolean> =>
  at.run(
    async () =>
      void (card.value = await post(
        '/api/field/settings/{field_setting_id}/worked',
        { field_setting_id },
        { worked: how },
        {
          what: how ? 'It worked' : 'It did not work',
        },
      )),
  )
const takeBack = (field_setting_id: string): Promise<boolean> =>
  at.run(
    async () =>
      void (card.value = await post(
        '/api/field/settings/{field_setting_id}/take-back',
        { field_setting_id },
        undefined as never,
        { what: 'Set in the field: taken back' },
      )),
  )
const anything = computed(() => Object.values(draft.values).some((text) => text.trim()))
/** What waited and was not taken stands in its fields again; where others were typed meanwhile, it waits. */
watch(
  () => !anything.value && notTaken.value[0],
  async (entry) => {
    if (!entry) return
    const body = entry.body as unknown as Schemas['SetInFieldIn']
    Object.assign(draft, body, { uuid: newUuid(), condition: (body.condition ?? '').split(', ').filter(Boolean) })
    at.problem = upper(entry.refused!.message)
    at.field = entry.refused!.field
    await nextTick() // it is in the draft, and that is kept
    outbox.drop(entry.uuid)
  },
  { immediate: true },
)
const shown = reactive({ how: false })
const wrong = (key: string): string => (at.field === `values.${key}` ? at.problem : '')
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <header class="tools">
      <h1 class="grow">{{ card ? `${card.machine.name}: field card` : 'Field card' }}</h1>
      <label
        >Crop
        <select v-model="draft.crop">
          <option value="">choose</option>
          <option v-for="one in card?.crops ?? []" :key="one">{{ one }}</option>
        </select></label
      >
    </header>
    <p v-if="card?.header" class="quiet">{{ card.header }} is on it.</p>
    <LookedBehind v-if="card" :id="id" :card="card" />
    <p v-if="at.problem && !at.field" class="trouble" role="alert">{{ at.problem }}</p>
    <NotTaken :entries="notTaken" />
    <form v-if="card" data-kept @submit.prevent="keep">
      <fieldset class="tools words" :disabled="!card.may_set">
        <legend>How it is</legend>
        <label
          >Field
          <InputText v-model="draft.place" maxlength="60" list="fields" :placeholder="card.last[0]?.place ?? ''" /></label
        ><datalist id="fields">
          <option v-for="one in card.places" :key="one" :value="one" />
        </datalist>
        <button
          v-for="one in card.conditions"
          :key="one"
          type="button"
          class="toggle"
          :aria-pressed="draft.condition.includes(one)"
          @click="toggle(one)"
        >
          {{ one }}
        </button>
      </fieldset>
      <ol class="settings">
        <li v-for="one in card.settings" :key="one.key">
          <label :for="`set-${one.key}`"
            ><b>{{ one.name }}</b
            ><RouterLink v-if="one.bench" :to="{ name: 'bench', params: { subject: one.bench } }" class="bench"
              >work it out</RouterLink
            ><small class="quiet">begin: {{ one.start }}</small></label
          >
          <span class="worked">
            <button
              v-if="one.worked && card.may_set"
              type="button"
              class="take"
              :title="`Take ${one.worked.value}`"
              @click="take(one)"
            >
              <b>{{ one.worked.shown }}</b><small
                >worked {{ date(one.worked.day) }}{{ one.worked.same ? '' : `, ${one.worked.crop || 'other crop'}`
                }}{{ one.worked.condition ? `, ${one.worked.condition}` : '' }}</small
              >
            </button>
          </span>
          <span class="typed">
            <InputText
              :id="`set-${one.key}`"
              v-model="draft.values[one.key]"
              maxlength="60"
              :placeholder="one.now"
              :disabled="!card.may_set"
              :invalid="!!wrong(one.key)"
            />
            <span class="unit">{{ one.length ? draft.units : one.unit }}</span>
          </span>
          <p v-if="shown.how" class="quiet how">{{ one.how }}</p>
          <p v-if="wrong(one.key)" class="trouble" role="alert">{{ wrong(one.key) }}</p>
        </li>
      </ol>
      <div v-if="card.may_set" class="tools keep" :class="{ ready: anything }">
        <button type="button" class="link" :aria-expanded="shown.how" @click="shown.how = !shown.how">
          {{ shown.how ? 'Hide which way to go' : 'Which way to go' }}
        </button>
        <label class="grow">Why so <InputText v-model="draft.why" maxlength="200" /></label>
        <Button type="submit" label="Keep how it is set" :disabled="at.busy" />
      </div>
      <p v-if="at.problem && at.field === 'values'" class="trouble" role="alert">{{ at.problem }}</p>
    </form>
    <p v-for="one in waiting" :key="one.uuid" role="status">
      <b>{{ said(one) }}</b> <small class="quiet">kept on this device, on its way to the server</small>
    </p>
    <KeptSettings
      v-if="card?.last.length"
      :last="card.last"
      :may-set="card.may_set"
      :busy="at.busy"
      @worked="worked"
      @take-back="takeBack"
    />
  </section>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  float: left;
  padding: 0 10px 0 0;
  line-height: var(--target);
}
.settings {
  list-style: none;
  margin: 0;
  padding: 0;
}
.settings li {
  display: grid;
  grid-template-columns: minmax(220px, 340px) minmax(160px, 320px) 240px;
  gap: 4px 16px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
.bench {
  margin-left: 12px;
}
.settings label small,
.take small {
  display: block;
  font-weight: 400;
}
.take {
  width: 100%;
  min-height: var(--target);
  text-align: left;
  padding: 2px 12px;
  border: 1px solid var(--line);
  border-left: 4px solid var(--sound);
  border-radius: var(--radius);
  background: var(--surface);
  color: var(--ink);
  cursor: pointer;
}
.typed {
  display: flex;
  align-items: center;
  gap: 8px;
}
.typed :deep(input) {
  width: 160px;
}
.unit {
  color: var(--quiet);
}
.how,
.settings .trouble {
  grid-column: 1 / -1;
}
.keep {
  padding: 8px 0;
}
/* Once there is something to keep, it is kept from anywhere on the list. */
.keep.ready {
  position: sticky;
  bottom: 0;
  background: var(--paper);
}
.keep .grow {
  display: flex;
  gap: 8px;
  align-items: center;
  flex: 1 1 240px;
}
.keep .grow :deep(input) {
  flex: 1;
}
.words {
  padding-bottom: 12px;
}
@media (max-width: 700px) {
  .keep.ready {
    position: static;
  }
  .settings li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
