<script setup lang="ts">
/** What the shop decides for itself: limits of its models, schools, feelers. Walk-arounds that have begun keep theirs. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import ChangeTable from '@/app/ChangeTable.vue'
import ShopTabs from '@/app/ShopTabs.vue'
import WholeNumber from '@/app/WholeNumber.vue'
import { upper } from '@/app/words'
import ModelNumbers from './ModelNumbers.vue'
import ModelTools from './ModelTools.vue'
import { useRules } from './useRules'

const {
  route,
  router,
  rules,
  model,
  problem,
  words,
  TABS,
  tab,
  modelId,
  edit,
  feeler,
  gone,
  picked,
  checks,
  begin,
  setLimit,
  asShipped,
  remove,
  putBack,
  counting,
  typeCount,
  setCount,
  setSchool,
  setFeeler,
  reload,
} = useRules()
</script>

<template>
  <ShopTabs />
  <section class="page">
    <header>
      <h1>Rules</h1>
      <p class="quiet">
        Limits come from the shipped starting values, then the shop’s schools, then the model’s manual, then the shop’s own. A
        change holds for walk-arounds that begin after it; finished ones keep the values they were judged by.
      </p>
    </header>
    <nav class="tabs" aria-label="Rules">
      <RouterLink
        v-for="one in TABS"
        :key="one.key"
        :to="{ query: { ...route.query, tab: one.key } }"
        :class="{ on: tab === one.key }"
        :aria-current="tab === one.key ? 'page' : undefined"
        >{{ one.name }}</RouterLink
      >
    </nav>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p v-if="gone.back" class="gone" role="status">
      {{ gone.what }} <Button size="small" severity="secondary" label="Put it back" @click="putBack" />
    </p>
    <p v-if="!rules && !problem" class="quiet" role="status">Reading the rules …</p>
    <template v-if="rules && tab === 'limits'">
      <div class="find">
        <select
          :value="modelId"
          aria-label="Model"
          @change="router.replace({ query: { ...route.query, model: ($event.target as HTMLSelectElement).value } })"
        >
          <option v-for="one in rules.models" :key="one.id" :value="one.id">
            {{ one.name }} ({{ one.kind.toLowerCase() }})
          </option>
        </select>
        <InputText v-model="words" maxlength="80" aria-label="Find a limit or a part" placeholder="Find a check or a part" />
      </div>
      <ModelTools v-if="model" :key="modelId" :model="model" :may-change="rules.may_change" @taken="reload" />
      <h2 v-if="model">Sizes and limits</h2>
      <div v-if="model?.counts.length" class="counts">
        <label v-for="count in model.counts" :key="count.thing"
          >{{ count.many }}
          <WholeNumber
            :model-value="counting[count.thing]?.count ?? count.count"
            :disabled="!rules.may_change"
            :invalid="!!counting[count.thing]?.problem"
            @update:model-value="(many) => typeCount(count.thing, many)"
            @change="setCount(count.thing)"
          /><small class="quiet">shipped {{ count.shipped }}</small
          ><span v-if="counting[count.thing]?.problem" class="problem" role="alert">{{
            upper(counting[count.thing]!.problem)
          }}</span></label
        >
      </div>
      <p v-if="model && !model.checks.length" class="quiet">
        Nothing on this kind of machine is held against a figure that could be changed.
      </p>
      <table v-else-if="model" class="as-list">
        <thead>
          <tr>
            <th>Check</th>
            <th>Limit</th>
            <th class="n">In force</th>
            <th>Where from</th>
            <th class="n">Shipped</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <template v-for="check in checks" :key="check.check">
            <tr v-for="(figure, i) in check.figures" :key="figure.figure" :class="{ own: figure.own, more: i > 0 }">
              <th v-if="i === 0" :rowspan="check.figures.length" scope="rowgroup">
                {{ check.name }}<small class="quiet">{{ check.station }}</small>
              </th>
              <td data-label="Limit">{{ figure.name }}</td>
              <td class="n" data-label="In force">
                <b>{{ figure.shown }}</b>
              </td>
              <td data-label="Where from">
                {{ figure.source }}<small v-if="figure.note" class="quiet">{{ figure.note }}</small>
              </td>
              <td class="n quiet" data-label="Shipped">{{ figure.shipped }}</td>
              <td class="act">
                <form
                  v-if="edit.key === check.check + figure.figure"
                  class="edit"
                  @submit.prevent="setLimit(check.check, figure.figure, edit.text)"
                >
                  <InputText
                    v-model="edit.text"
                    maxlength="30"
                    v-focus
                    :aria-label="`${check.name}: ${figure.name}`"
                    :placeholder="figure.shown"
                    :invalid="!!edit.problem"
                    @keydown.esc="edit.key = ''"
                  />
                  <select v-model="edit.source" aria-label="Where the figure comes from">
                    <option value="manual">Operator’s manual</option>
                    <option value="shop">This shop</option>
                  </select>
                  <InputText
                    v-model="edit.note"
                    maxlength="200"
                    aria-label="Page, or who measured"
                    placeholder="Page, or who measured"
                  />
                  <Button type="submit" size="small" label="Save" /><Button
                    size="small"
                    text
                    severity="secondary"
                    label="Cancel"
                    data-out
                    @click="edit.key = ''"
                  />
                  <p v-if="edit.problem" class="problem" role="alert">{{ edit.problem }}</p>
                </form>
                <template v-else-if="rules.may_change">
                  <Button
                    size="small"
                    text
                    severity="secondary"
                    label="Change"
                    :aria-label="`Change ${check.name}, ${figure.name}`"
                    @click="begin(check.check + figure.figure, figure)"
                  />
                  <Button
                    v-if="figure.own"
                    size="small"
                    text
                    severity="secondary"
                    label="As shipped"
                    :aria-label="`${check.name}, ${figure.name}: as shipped`"
                    @click="asShipped(check, figure)"
                  />
                </template>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
      <ModelNumbers v-if="model" :model="model" :words="words" />
    </template>
    <div v-if="rules && tab === 'schools'" class="schools">
      <fieldset v-for="school in rules.schools" :key="school.subject" :disabled="!rules.may_change">
        <legend>{{ school.name }}</legend>
        <p class="quiet">{{ school.why_default }}</p>
        <label
          v-for="choice in school.choices"
          :key="choice.key"
          class="pick"
          :class="{ on: (picked[school.subject] ?? school.chosen) === choice.key }"
        >
          <input
            type="radio"
            :name="school.subject"
            :value="choice.key"
            :checked="(picked[school.subject] ?? school.chosen) === choice.key"
            @change="picked[school.subject] = choice.key"
          />
          <span
            ><b>{{ choice.name }}</b
            ><small v-if="choice.key === school.default" class="quiet"> shipped</small><br />{{ choice.why }}</span
          >
        </label>
        <p v-if="(picked[school.subject] ?? school.chosen) !== school.chosen" class="edit">
          <Button label="Save" :aria-label="`Save: ${school.name}`" @click="setSchool(school)" />
          <Button text severity="secondary" label="Leave as it was" @click="delete picked[school.subject]" />
          <span class="quiet">For walk-arounds that begin from now on.</span>
        </p>
      </fieldset>
    </div>
    <div v-if="rules && tab === 'feelers'" class="feelers">
      <p>
        Contact found with a card, with folded paper and with single paper agrees once the thickness is counted. Measure yours
        with a caliper over ten sheets.
      </p>
      <table>
        <thead>
          <tr>
            <th>Feeler</th>
            <th class="n">Thickness</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in rules.feelers" :key="one.id">
            <td>{{ one.name }}</td>
            <td class="n">
              <b>{{ one.thickness_mm }} mm</b>
            </td>
            <td>
              <Button
                v-if="rules.may_change"
                size="small"
                text
                severity="secondary"
                label="Remove"
                :aria-label="`Remove ${one.name}`"
                @click="remove(one)"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <form v-if="rules.may_change" class="edit" @submit.prevent="setFeeler(feeler.name, feeler.thickness)">
        <InputText v-model="feeler.name" maxlength="30" aria-label="Name of the feeler" placeholder="Name, as card" />
        <InputText
          v-model="feeler.thickness"
          maxlength="20"
          aria-label="Thickness"
          placeholder="Thickness, as 0.28 mm"
          :invalid="!!feeler.problem"
        />
        <Button type="submit" label="Save" :disabled="!feeler.name.trim()" />
        <p v-if="feeler.problem" class="problem" role="alert">{{ feeler.problem }}</p>
      </form>
    </div>
    <ChangeTable v-if="rules && tab === 'log'" :changes="rules.changes" />
  </section>
</template>

<style scoped src="./Rules.css"></style>
