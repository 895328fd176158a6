<script setup lang="ts">
/** Adding a machine: what it is, of which model, what it has, how it is called. What was typed is kept when one leaves. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { nextTick, onMounted } from 'vue'
import { useRoute } from 'vue-router'
import { api, type Schemas } from '@/api/client'
import { asForm, tableTaken, type Step } from '@/api/steps'
import Field from '@/app/Field.vue'
import { useOnward } from '@/app/useOnward'
import { counted } from '@/app/counted'
import { useSession } from '@/app/session'
import TableFile from '@/app/TableFile.vue'
import WholeNumber from '@/app/WholeNumber.vue'
import { signOf } from '@/design/stationSigns'
import MachineFields from './MachineFields.vue'
import OptionList from './OptionList.vue'
import SizeList from './SizeList.vue'
import { useNewMachine } from './useNewMachine'

const session = useSession()
const route = useRoute()
const onward = useOnward()
const { draft, kinds, kind, model, reading, adding, takenUp, order, load, like, pickKind, pickModel, forget, add } =
  useNewMachine(session.me?.id ?? 0)
const ARRIVALS = [
  { key: '', name: 'It has been here' },
  { key: 'used', name: 'Came used' },
  { key: 'new', name: 'Came new' },
] as const

const asLike = async (): Promise<void> => {
  if (route.query.like) await like(Number(route.query.like))
}
onMounted(async () => {
  await load()
  await asLike()
})
function anew(): void {
  forget()
  void asLike()
}
const sendFile = (form: FormData, told: (step: Step) => void): Promise<Schemas['TableReportOut']> =>
  tableTaken(() => api.POST('/api/machines/file', { ...asForm(form), parseAs: 'stream' }) as never, told)
async function keep(): Promise<void> {
  const made = await add()
  if (made) await onward({ name: 'machine', params: { id: made.id } })
  else {
    await nextTick()
    document.querySelector('.new-machine [role="alert"]')?.scrollIntoView({ block: 'center' })
  }
}
</script>

<template>
  <section class="desk new-machine">
    <header class="tools">
      <h1 class="grow">Add a machine</h1>
      <Button v-if="takenUp" severity="secondary" label="Begin anew" @click="anew" />
    </header>
    <p v-if="takenUp" class="quiet" role="status">This is where you left off.</p>
    <p v-if="reading.problem" class="trouble" role="alert">{{ reading.problem }}</p>
    <p v-else-if="!kinds" class="quiet" role="status">Reading what may be added …</p>
    <form v-if="kinds" class="steps" data-kept novalidate @submit.prevent="keep">
      <section class="card" aria-labelledby="what">
        <h2 id="what">What is it?</h2>
        <div class="kinds" role="group" aria-labelledby="what">
          <button
            v-for="one in kinds.kinds"
            :key="one.family"
            type="button"
            :aria-pressed="draft.family === one.family"
            @click="pickKind(one.family)"
          >
            <svg viewBox="0 0 40 30" aria-hidden="true"><path :d="signOf(one.sign)" /></svg>{{ one.name }}
          </button>
        </div>
      </section>
      <template v-if="kind">
        <section class="card" aria-labelledby="model">
          <h2 id="model">Which model?</h2>
          <div v-if="kind.models.length" class="models" role="group" aria-labelledby="model">
            <button
              v-for="one in kind.models"
              :key="one.id"
              type="button"
              :aria-pressed="draft.model === one.id"
              @click="pickModel(one.id)"
            >
              {{ one.maker }} {{ one.name }}
            </button>
            <button type="button" :aria-pressed="draft.model === 0" @click="pickModel(0)">Another one</button>
          </div>
          <template v-if="draft.model === 0">
            <div class="row">
              <Field label="Maker" name="model.maker" :at="adding"><InputText v-model="draft.maker" maxlength="60" /></Field>
              <Field label="Model" name="model.name" :at="adding"><InputText v-model="draft.modelName" maxlength="60" /></Field>
              <Field
                v-for="one in kind.counts"
                :key="one.thing"
                :label="one.many"
                :name="`model.counts.${one.thing}`"
                :at="adding"
              >
                <WholeNumber
                  :model-value="draft.counts[one.thing] ?? one.count"
                  @update:model-value="(count) => (draft.counts[one.thing] = count!)"
                />
              </Field>
            </div>
            <details v-if="kind.sizes.length" class="own-sizes" :open="adding.field.startsWith('model.sizes') || undefined">
              <summary>
                Sizes from its manual <span class="quiet">({{ counted(kind.sizes.length, 'check') }})</span>
              </summary>
              <p class="quiet">
                Leave empty what you do not know: the starting value in grey stands, and you are told so, until the manual is at
                hand.
              </p>
              <SizeList v-model="draft.sizes" :drawn="kind.sizes" :at="adding" :order="order" />
            </details>
          </template>
          <p v-else-if="model?.counts.length" class="quiet">
            {{ model.counts.map((one) => counted(one.count, one.name.toLowerCase(), one.many.toLowerCase())).join(', ') }}
          </p>
        </section>
        <section v-if="draft.model !== null && kind.options.length" class="card" aria-labelledby="has">
          <h2 id="has">What does it have?</h2>
          <OptionList v-model="draft.options" :options="kind.options" />
        </section>
        <section v-if="draft.model !== null" class="card" aria-labelledby="this-one">
          <h2 id="this-one">This one</h2>
          <MachineFields
            v-model="draft.machine"
            :at="adding"
            :has-rows="kind.has_rows"
            :is-header="kind.is_header"
            :owners="kinds.owners"
            :combines="kinds.combines"
          >
            <Field :label="kind.counter === 'h' ? 'Hours' : 'Hectares'" hint="what its meter shows" name="counter" :at="adding">
              <InputText v-model="draft.counter" inputmode="decimal" maxlength="12" />
            </Field>
          </MachineFields>
          <fieldset class="arrival">
            <legend>How it came</legend>
            <label v-for="one in ARRIVALS" :key="one.key"
              ><input v-model="draft.arrival" type="radio" name="arrival" :value="one.key" /> {{ one.name }}</label
            >
            <span v-if="draft.arrival === 'new'" class="quiet">Every part in it is as old as its meter says.</span>
            <span v-if="draft.arrival === 'used'" class="quiet">The first walk-around says where its parts stand.</span>
          </fieldset>
        </section>
        <p v-if="adding.problem && (!adding.field || adding.field.endsWith('family'))" class="trouble" role="alert">
          {{ adding.problem }}
        </p>
        <div class="tools">
          <Button type="submit" class="go" label="Add the machine" :disabled="adding.busy || draft.model === null" />
        </div>
      </template>
    </form>
    <details v-if="kinds" class="card many">
      <summary>Many at once, from a table</summary>
      <p>
        A line a machine, CSV or XLSX. Begin with the table of what is there:
        <a href="/machines.xlsx">XLSX</a>, <a href="/machines.csv">CSV</a>. Several options, owners or combines in one cell are
        parted by a semicolon. Nothing is taken before you have seen what each line would do.
      </p>
      <TableFile label="Read machines from a file" :send="sendFile" @taken="load" />
      <p class="quiet"><RouterLink :to="{ name: 'machines' }">To the machines</RouterLink></p>
    </details>
  </section>
</template>

<style scoped src="./NewMachine.css"></style>
