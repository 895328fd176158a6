<script setup lang="ts">
/** What the shop decides for itself: limits of its models, schools, feelers. Walk-arounds that have begun keep theirs. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, api, Refused, write, type Schemas } from '@/api/client'
import { date } from '@/app/words'

type Tab = 'limits' | 'schools' | 'feelers' | 'log'
const route = useRoute()
const router = useRouter()
const rules = ref<Schemas['RulesOut'] | null>(null)
const model = ref<Schemas['ModelRulesOut'] | null>(null)
const problem = ref('')
const words = ref('')
const TABS: { key: Tab; name: string }[] = [{ key: 'limits', name: 'Sizes and limits' }, { key: 'schools', name: 'Schools' }, { key: 'feelers', name: 'Feelers' }, { key: 'log', name: 'Changes' }]
const tab = computed<Tab>(() => (TABS.some((one) => one.key === route.query.tab) ? (route.query.tab as Tab) : 'limits'))
const modelId = computed(() => Number(route.query.model) || (rules.value?.models.find((one) => one.kind.startsWith('Row-crop planter')) ?? rules.value?.models[0])?.id || 0)
const edit = reactive({ key: '', text: '', source: 'shop', note: '', problem: '' })
const feeler = reactive({ name: '', thickness: '', problem: '' })
/** What was given up last, for who wants it back. */
const gone = reactive({ what: '', back: null as null | (() => Promise<unknown>) })
/** Schools as picked, before they are saved. */
const picked = reactive<Record<string, string>>({})

async function run<T>(call: Promise<T>, take: (found: T) => void): Promise<boolean> {
  try {
    take(await call)
    problem.value = ''
    return true
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'That could not be done.'
    return false
  }
}
onMounted(() => run(answer(api.GET('/api/rules')), (found) => (rules.value = found)))
watch(modelId, (id) => { if (id) void run(answer(api.GET('/api/rules/models/{model_id}', { params: { path: { model_id: id } } })), (found) => (model.value = found)) })

const checks = computed(() => {
  const sought = words.value.toLowerCase().trim()
  return (model.value?.checks ?? []).filter((check) => !sought || `${check.name} ${check.station}`.toLowerCase().includes(sought))
})
const begin = (key: string, figure: Schemas['RuleFigureOut']): void => void Object.assign(edit, { key, text: figure.own ? figure.shown : '', source: figure.source === 'operator\'s manual' ? 'manual' : 'shop', note: figure.note, problem: '' })

async function setLimit(check: string, figure: string, text: string): Promise<void> {
  try {
    model.value = await write(() => api.POST('/api/rules/models/{model_id}/limits', { params: { path: { model_id: modelId.value } }, body: { check, figure, text, source: edit.source, note: edit.note } }))
    edit.key = ''
    await run(answer(api.GET('/api/rules')), (found) => (rules.value = found))
  } catch (error) {
    edit.problem = error instanceof Refused ? error.message : 'It could not be saved.'
  }
}
async function asShipped(check: Schemas['RuleCheckOut'], figure: Schemas['RuleFigureOut']): Promise<void> {
  const { shown, note, source } = figure
  Object.assign(edit, { source: source === 'operator\'s manual' ? 'manual' : 'shop', note: '', problem: '' })
  await setLimit(check.check, figure.figure, '')
  if (edit.problem) return
  const put = async (): Promise<void> => {
    Object.assign(edit, { source: source === 'operator\'s manual' ? 'manual' : 'shop', note })
    await setLimit(check.check, figure.figure, shown)
  }
  Object.assign(gone, { what: `${check.name}, ${figure.name.toLowerCase()}: ${shown} given up.`, back: put })
}
async function remove(one: Schemas['FeelerOut']): Promise<void> {
  await setFeeler(one.name, '')
  if (!feeler.problem) Object.assign(gone, { what: `${one.name}, ${one.thickness_mm} mm, removed.`, back: () => setFeeler(one.name, `${one.thickness_mm} mm`) })
}
async function putBack(): Promise<void> {
  const back = gone.back
  Object.assign(gone, { what: '', back: null })
  await back?.()
}
const setCount = (thing: string, count: number) => run(write(() => api.POST('/api/rules/models/{model_id}/counts', { params: { path: { model_id: modelId.value } }, body: { thing, count } })), (found) => (model.value = found))
async function setSchool(school: Schemas['SchoolOut']): Promise<void> {
  const [subject, choice, before] = [school.subject, picked[school.subject] ?? school.chosen, school.chosen]
  const save = (to: string) => run(write(() => api.POST('/api/rules/schools', { body: { subject, choice: to } })), (found) => {
    rules.value = found
    delete picked[subject]
  })
  const name = (key: string): string => school.choices.find((one) => one.key === key)?.name ?? key
  if (await save(choice)) Object.assign(gone, { what: `${school.name}: ${name(choice).toLowerCase()} from now on.`, back: () => save(before) })
}
async function setFeeler(name: string, thickness: string): Promise<void> {
  try {
    rules.value = await write(() => api.POST('/api/rules/feelers', { body: { name, thickness } }))
    Object.assign(feeler, { name: '', thickness: '', problem: '' })
  } catch (error) {
    feeler.problem = error instanceof Refused ? error.message : 'It could not be saved.'
  }
}
</script>

<template>
  <section class="page">
    <header><h1>Rules</h1><p class="quiet">Limits come from the shipped starting values, then the shop’s schools, then the model’s manual, then the shop’s own. A change holds for walk-arounds that begin after it; finished ones keep the values they were judged by.</p></header>
    <nav class="tabs" aria-label="Rules"><RouterLink v-for="one in TABS" :key="one.key" :to="{ query: { ...route.query, tab: one.key } }" :class="{ on: tab === one.key }" :aria-current="tab === one.key ? 'page' : undefined">{{ one.name }}</RouterLink></nav>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p v-if="gone.back" class="gone" role="status">{{ gone.what }} <Button size="small" severity="secondary" label="Put it back" @click="putBack" /></p>
    <p v-if="!rules && !problem" class="quiet" role="status">Reading the rules …</p>
    <template v-if="rules && tab === 'limits'">
      <div class="find">
        <select :value="modelId" aria-label="Model" @change="router.replace({ query: { ...route.query, model: ($event.target as HTMLSelectElement).value } })"><option v-for="one in rules.models" :key="one.id" :value="one.id">{{ one.name }} ({{ one.kind.toLowerCase() }})</option></select>
        <InputText v-model="words" aria-label="Find a limit" placeholder="Find a check" />
      </div>
      <div v-if="model?.counts.length" class="counts"><label v-for="count in model.counts" :key="count.thing">{{ count.name }}s <input type="number" min="0" max="400" :value="count.count" :disabled="!rules.may_change" @change="setCount(count.thing, Number(($event.target as HTMLInputElement).value))" /><small class="quiet">shipped {{ count.shipped }}</small></label></div>
      <p v-if="model && !model.checks.length" class="quiet">Nothing on this kind of machine is held against a figure that could be changed.</p>
      <table v-else-if="model" class="as-list">
        <thead><tr><th>Check</th><th>Limit</th><th class="n">In force</th><th>Where from</th><th class="n">Shipped</th><th></th></tr></thead>
        <tbody>
          <template v-for="check in checks" :key="check.check">
            <tr v-for="(figure, i) in check.figures" :key="figure.figure" :class="{ own: figure.own, first: i === 0 }">
              <th v-if="i === 0" :rowspan="check.figures.length" scope="rowgroup">{{ check.name }}<small class="quiet">{{ check.station }}</small></th>
              <td data-label="Limit">{{ figure.name }}</td>
              <td class="n" data-label="In force"><b>{{ figure.shown }}</b></td>
              <td data-label="Where from">{{ figure.source }}<small v-if="figure.note" class="quiet">{{ figure.note }}</small></td>
              <td class="n quiet" data-label="Shipped">{{ figure.shipped }}</td>
              <td class="act">
                <form v-if="edit.key === check.check + figure.figure" class="edit" @submit.prevent="setLimit(check.check, figure.figure, edit.text)">
                  <InputText v-model="edit.text" v-focus :aria-label="`${check.name}: ${figure.name}`" :placeholder="figure.shown" :invalid="!!edit.problem" @keydown.esc="edit.key = ''" />
                  <select v-model="edit.source" aria-label="Where the figure comes from"><option value="manual">Operator’s manual</option><option value="shop">This shop</option></select>
                  <InputText v-model="edit.note" aria-label="Page, or who measured" placeholder="Page, or who measured" />
                  <Button type="submit" size="small" label="Save" /><Button size="small" text severity="secondary" label="Cancel" data-out @click="edit.key = ''" />
                  <p v-if="edit.problem" class="problem" role="alert">{{ edit.problem }}</p>
                </form>
                <template v-else-if="rules.may_change">
                  <Button size="small" text severity="secondary" label="Change" :aria-label="`Change ${check.name}, ${figure.name}`" @click="begin(check.check + figure.figure, figure)" />
                  <Button v-if="figure.own" size="small" text severity="secondary" label="As shipped" :aria-label="`${check.name}, ${figure.name}: as shipped`" @click="asShipped(check, figure)" />
                </template>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </template>
    <div v-if="rules && tab === 'schools'" class="schools">
      <fieldset v-for="school in rules.schools" :key="school.subject" :disabled="!rules.may_change">
        <legend>{{ school.name }}</legend>
        <p class="quiet">{{ school.why_default }}</p>
        <label v-for="choice in school.choices" :key="choice.key" class="pick" :class="{ on: (picked[school.subject] ?? school.chosen) === choice.key }">
          <input type="radio" :name="school.subject" :value="choice.key" :checked="(picked[school.subject] ?? school.chosen) === choice.key" @change="picked[school.subject] = choice.key" />
          <span><b>{{ choice.name }}</b><small v-if="choice.key === school.default" class="quiet"> shipped</small><br />{{ choice.why }}</span>
        </label>
        <p v-if="(picked[school.subject] ?? school.chosen) !== school.chosen" class="edit"><Button label="Save" :aria-label="`Save: ${school.name}`" @click="setSchool(school)" /> <Button text severity="secondary" label="Leave as it was" @click="delete picked[school.subject]" /> <span class="quiet">For walk-arounds that begin from now on.</span></p>
      </fieldset>
    </div>
    <div v-if="rules && tab === 'feelers'" class="feelers">
      <p>Contact found with a card, with folded paper and with single paper agrees once the thickness is counted. Measure yours with a caliper over ten sheets.</p>
      <table><thead><tr><th>Feeler</th><th class="n">Thickness</th><th></th></tr></thead><tbody><tr v-for="one in rules.feelers" :key="one.id"><td>{{ one.name }}</td><td class="n"><b>{{ one.thickness_mm }} mm</b></td><td><Button v-if="rules.may_change" size="small" text severity="secondary" label="Remove" :aria-label="`Remove ${one.name}`" @click="remove(one)" /></td></tr></tbody></table>
      <form v-if="rules.may_change" class="edit" @submit.prevent="setFeeler(feeler.name, feeler.thickness)">
        <InputText v-model="feeler.name" maxlength="30" aria-label="Name of the feeler" placeholder="Name, as card" /> <InputText v-model="feeler.thickness" aria-label="Thickness" placeholder="Thickness, as 0.28 mm" :invalid="!!feeler.problem" /> <Button type="submit" label="Save" :disabled="!feeler.name.trim()" />
        <p v-if="feeler.problem" class="problem" role="alert">{{ feeler.problem }}</p>
      </form>
    </div>
    <table v-if="rules && tab === 'log'" class="as-list">
      <thead><tr><th>When</th><th>Who</th><th>What</th><th>Was</th><th>Became</th></tr></thead>
      <tbody><tr v-for="(change, i) in rules.changes" :key="i"><td>{{ date(change.at) }}</td><td>{{ change.by }}</td><td>{{ change.what }}</td><td data-label="Was">{{ change.before }}</td><td data-label="Became"><b>{{ change.after }}</b></td></tr><tr v-if="!rules.changes.length"><td colspan="5" class="quiet">Nothing has been changed yet.</td></tr></tbody>
    </table>
  </section>
</template>

<style scoped>
.page { max-width: 1240px; margin: 0 auto; padding: 16px 20px 60px; display: grid; gap: 12px; }
header p { max-width: 90ch; }
.tabs { display: flex; flex-wrap: wrap; gap: 4px; border-bottom: 1px solid var(--line); }
.tabs a { display: inline-flex; align-items: center; min-height: var(--target); padding: 0 14px; font-weight: 600; color: var(--ink); text-decoration: none; }
.tabs .on { color: var(--accent); box-shadow: inset 0 -3px 0 var(--accent); }
.find, .edit { display: flex; flex-wrap: wrap; gap: 8px; align-items: center; }
select, .find :deep(input), .edit :deep(input), .counts input { min-height: var(--target); padding: 0 10px; font: inherit; color: var(--ink); background: var(--surface); border: 1px solid var(--line); border-radius: var(--radius); }
.counts { display: flex; flex-wrap: wrap; gap: 8px 20px; }
.counts label { display: inline-flex; gap: 8px; align-items: center; }
.counts input { width: 84px; }
table { border-collapse: collapse; width: 100%; background: var(--surface); border: 1px solid var(--line); }
th { text-align: left; font-weight: 600; vertical-align: top; }
th, td { padding: 5px 12px; border-top: 1px solid var(--line); }
tr:not(.first) td { border-top-color: transparent; }
.n { text-align: right; white-space: nowrap; }
small { display: block; font-weight: 400; font-size: 0.95rem; }
.pick small { display: inline; }
.own td { background: var(--accent-soft); }
.act { white-space: nowrap; text-align: right; }
.act :deep(.p-button) { min-height: var(--target); }
.edit { white-space: normal; justify-content: flex-end; }
.schools { display: grid; grid-template-columns: repeat(auto-fit, minmax(min(520px, 100%), 1fr)); gap: 16px; align-items: start; }
fieldset { border: 1px solid var(--line); border-radius: var(--radius); background: var(--surface); padding: 6px 16px 12px; margin: 0; display: grid; gap: 6px; min-width: 0; }
legend { font-weight: 600; font-size: 1.1rem; padding: 0 6px; }
.gone { display: flex; gap: 12px; align-items: center; font-weight: 600; }
.edit.edit { justify-content: flex-start; }
.pick { display: grid; grid-template-columns: 22px minmax(0, 1fr); gap: 8px; padding: 6px 10px; border-radius: var(--radius); min-height: var(--target); cursor: pointer; line-height: 1.3; }
.pick.on { background: var(--accent-soft); }
.pick input { accent-color: var(--accent); width: 18px; height: 18px; margin: 2px 0 0; }
.feelers { display: grid; gap: 12px; max-width: 620px; }
.problem { color: var(--stop); font-weight: 600; }
@media (max-width: 800px) { .page { padding: 12px; } }
</style>
