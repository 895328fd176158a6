<script setup lang="ts">
/** A check of the shop's own: what is looked at, how it is read, what follows; beside it what the walk-around will show. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, nextTick, onMounted } from 'vue'
import Field from '@/app/Field.vue'
import WholeNumber from '@/app/WholeNumber.vue'
import { useOnward } from '@/app/useOnward'
import { useSession } from '@/app/session'
import CheckTrial from './CheckTrial.vue'
import StateRows from './StateRows.vue'
import { useCheckForm } from './useCheckForm'
import { upper } from '@/app/words'

const props = withDefaults(defineProps<{ family?: string; check?: string }>(), { family: '', check: '' })
const session = useSession()
const onward = useOnward()
const {
  draft,
  takenUp,
  form,
  reading,
  saving,
  kind,
  rule,
  asks,
  station,
  load,
  anew,
  pickFamily,
  trial,
  lacking,
  tried,
  keep,
} = useCheckForm(session.me?.id ?? 0, props.family, props.check)
onMounted(load)
const tools = computed({
  get: () => draft.tools.join(', '),
  set: (text: string) => void (draft.tools = text.split(',').map((one) => one.trimStart())),
})
const unitOf = (given: string): string => given || draft.unit
async function save(): Promise<void> {
  if (await keep()) await onward({ name: 'own-checks' })
  else {
    await nextTick()
    document.querySelector('.check-form [role="alert"]')?.scrollIntoView({ block: 'center' })
  }
}
</script>

<template>
  <section class="desk check-form">
    <header class="tools">
      <h1 class="grow">{{ check ? 'Change a check' : 'Add a check' }}</h1>
      <Button v-if="takenUp" severity="secondary" label="Begin anew" @click="anew" />
    </header>
    <p v-if="takenUp" class="quiet" role="status">This is where you left off.</p>
    <p v-if="reading.problem" class="trouble" role="alert">{{ reading.problem }}</p>
    <p v-else-if="!form" class="quiet" role="status">Reading what may be picked …</p>
    <div v-if="form" class="halves">
      <form class="steps" data-kept novalidate @submit.prevent="save">
        <section class="card" aria-labelledby="what">
          <h2 id="what">What is looked at?</h2>
          <div class="row">
            <Field label="Kind of machine" name="family" :at="saving">
              <select
                :value="draft.family"
                :disabled="!!check"
                @change="pickFamily(($event.target as HTMLSelectElement).value)"
              >
                <option value="" disabled>Pick one</option>
                <option v-for="one in form.families" :key="one.family" :value="one.family">{{ one.name }}</option>
              </select>
            </Field>
            <Field label="Model" name="model" :at="saving">
              <select v-model="draft.model" :disabled="!kind">
                <option :value="null">Every model</option>
                <option v-for="one in kind?.models" :key="one.id" :value="one.id">{{ one.name }}</option>
              </select>
            </Field>
            <Field label="Station" name="station" :at="saving">
              <select v-model="draft.station" :disabled="!kind">
                <option value="" disabled>Pick one</option>
                <option v-for="one in kind?.stations" :key="one.key" :value="one.key">{{ one.name }}</option>
              </select>
            </Field>
            <Field label="How often" name="per" :at="saving">
              <select v-model="draft.per" :disabled="!kind">
                <option v-for="one in kind?.per ?? []" :key="one.key" :value="one.key">{{ one.name }}</option>
              </select>
            </Field>
          </div>
          <Field label="Name" name="name" :at="saving"><InputText v-model="draft.name" maxlength="80" /></Field>
          <Field label="How it is done" name="how" :at="saving"><InputText v-model="draft.how" maxlength="400" /></Field>
          <Field label="Why" hint="what happens if nobody looks" name="why" :at="saving"
            ><InputText v-model="draft.why" maxlength="400"
          /></Field>
        </section>
        <section class="card" aria-labelledby="read">
          <h2 id="read">How is it read?</h2>
          <Field label="Reading" name="rule" :at="saving">
            <select v-model="draft.rule">
              <option v-for="one in form.rules" :key="one.key" :value="one.key">{{ one.name }}</option>
            </select>
          </Field>
          <StateRows
            v-if="asks('states')"
            v-model="draft.states"
            :at="saving"
            :severities="form.severities"
            :actions="form.actions"
          />
          <div class="row">
            <Field v-if="asks('unit')" label="Unit" name="unit" :at="saving">
              <select v-model="draft.unit">
                <option value="">{{ draft.rule === 'record' ? 'None: in words' : 'Pick one' }}</option>
                <option v-for="one in form.units" :key="one" :value="one">{{ one }}</option>
              </select>
            </Field>
            <Field
              v-for="one in rule?.figures"
              :key="one.key"
              :label="unitOf(one.unit) ? `${one.name}, ${unitOf(one.unit)}` : one.name"
              :hint="one.wanted ? '' : 'may stay empty'"
              :name="`figures.${one.key}`"
              :at="saving"
            >
              <InputText v-model="draft.figures[one.key]" maxlength="20" />
            </Field>
            <Field v-if="asks('right')" label="The right answer" name="right" :at="saving">
              <select v-model="draft.right">
                <option value="yes">Yes</option>
                <option value="no">No</option>
              </select>
            </Field>
            <Field v-if="asks('right')" label="Otherwise it is" name="severity" :at="saving">
              <select v-model="draft.severity">
                <option v-for="one in form.severities.slice(1)" :key="one.key" :value="one.key">{{ one.name }}</option>
              </select>
            </Field>
            <Field v-if="asks('fault')" label="Then" name="action" :at="saving">
              <select v-model="draft.action">
                <option v-for="one in form.actions.slice(1)" :key="one.key" :value="one.key">{{ upper(one.name) }}</option>
              </select>
            </Field>
            <Field
              v-if="asks('life')"
              :label="`Lasts about, ${kind?.counter ?? 'h'}`"
              hint="to see ahead when it is due"
              name="life"
              :at="saving"
              ><InputText v-model="draft.life" inputmode="decimal" maxlength="10"
            /></Field>
          </div>
        </section>
        <section class="card" aria-labelledby="when">
          <h2 id="when">When, and in which state of the machine?</h2>
          <fieldset class="ticks">
            <legend>Made in</legend>
            <label v-for="one in form.phases" :key="one.key" class="tick"
              ><input v-model="draft.phases" type="checkbox" :value="one.key" /> {{ one.name }}</label
            >
            <span v-if="saving.field === 'phases'" class="problem" role="alert">{{ saving.problem }}</span>
          </fieldset>
          <div class="row">
            <Field label="Posture" name="posture" :at="saving">
              <select v-model="draft.posture">
                <option value="">{{ station ? `As its station: ${station.posture}` : 'As its station' }}</option>
                <option v-for="one in form.postures" :key="one" :value="one">{{ upper(one) }}</option>
              </select>
            </Field>
            <Field label="Only with" name="option" :at="saving">
              <select v-model="draft.option" :disabled="!kind">
                <option value="">Any machine</option>
                <option v-for="one in kind?.options" :key="one.key" :value="one.key">{{ one.name }}</option>
              </select>
            </Field>
            <Field label="Tools" hint="with commas" name="tools" :at="saving"
              ><InputText v-model="tools" maxlength="200"
            /></Field>
          </div>
          <fieldset class="ticks cautions">
            <legend>Cautions</legend>
            <label v-for="one in form.hazards" :key="one.key" class="tick"
              ><input v-model="draft.hazards" type="checkbox" :value="one.key" /> {{ one.name }}</label
            >
          </fieldset>
        </section>
        <section class="card" aria-labelledby="follows">
          <h2 id="follows">What follows?</h2>
          <div class="row">
            <Field label="Part" hint="goes on the list" name="slot" :at="saving">
              <select v-model="draft.slot" :disabled="!kind">
                <option value="">None</option>
                <option value="own">Another, by its name …</option>
                <option v-for="one in kind?.slots" :key="one.key" :value="one.key">{{ one.name }}</option>
              </select>
            </Field>
            <Field v-if="draft.slot === 'own'" label="What the part is called" name="part" :at="saving">
              <InputText v-model="draft.part" maxlength="80" />
            </Field>
            <Field v-if="draft.slot" label="How many" name="quantity" :at="saving">
              <WholeNumber v-model="draft.quantity" />
            </Field>
          </div>
          <Field label="How it is put right" name="remedy" :at="saving"
            ><InputText v-model="draft.remedy" maxlength="400"
          /></Field>
          <fieldset class="ticks">
            <label class="tick"
              ><input v-model="draft.safety" type="checkbox" /> A safety item: any fault stops the machine</label
            >
            <label class="tick"><input v-model="draft.optional" type="checkbox" /> Optional: left out without a question</label>
          </fieldset>
          <Field v-if="check" label="Why it is changed" name="reason" :at="saving"
            ><InputText v-model="draft.reason" maxlength="200"
          /></Field>
        </section>
        <p v-if="saving.problem && !saving.field" class="trouble" role="alert">{{ saving.problem }}</p>
        <div class="tools">
          <Button type="submit" :label="check ? 'Save the change' : 'Add the check'" :disabled="saving.busy" />
          <RouterLink :to="{ name: 'own-checks' }">To the own checks</RouterLink>
          <span class="quiet">For walk-arounds that begin from now on.</span>
        </div>
      </form>
      <CheckTrial v-model="tried" :trial="trial" :lacking="lacking" />
    </div>
  </section>
</template>

<style scoped src="./CheckForm.css"></style>
