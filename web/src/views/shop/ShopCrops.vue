<script setup lang="ts">
/** What is grown, each crop with its group, and the seasons of the year. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { nextTick, reactive } from 'vue'
import { CROP_NAMES } from '@/api/vocabulary'
import { api, write, type Schemas } from '@/api/client'
import { useSaving } from './useSaving'
import { upper } from '@/app/words'

const shop = defineModel<Schemas['ShopOut']>({ required: true })
const form = reactive({
  crops: shop.value.crops.map((one) => ({ ...one })),
  seasons: shop.value.seasons.map((one) => ({ ...one })),
})
const MONTHS = Array.from({ length: 12 }, (_, i) => ({
  key: String(i + 1).padStart(2, '0'),
  name: new Date(2028, i, 1).toLocaleDateString('en-GB', { month: 'long' }),
}))
const month = (day: string): string => day.slice(0, 2)
const dayOf = (day: string): string => day.slice(3).replace(/^0/, '')
const join = (m: string, d: string): string => `${m}-${d.trim().replace(/^\d$/, '0$&')}`
const { saving, saved, keep } = useSaving(
  async () => void (shop.value = await write(() => api.POST('/api/shop/crops', { body: { ...form } }))),
)
async function more(what: 'crops' | 'seasons'): Promise<void> {
  if (what === 'crops') form.crops.push({ name: '', group: 'small-grain' })
  else form.seasons.push({ name: '', first: '04-01', last: '05-15' })
  saved.value = false
  await nextTick()
  document.querySelector<HTMLInputElement>(`.${what} li:last-child input`)?.focus()
}
</script>

<template>
  <form class="card" aria-label="Crops and seasons" novalidate @submit.prevent="keep" @input="saved = false">
    <h2>Crops</h2>
    <p class="quiet">With the group that tells which set-up they want.</p>
    <ul class="lines crops">
      <li v-for="(one, i) in form.crops" :key="i">
        <InputText
          v-model="one.name"
          maxlength="40"
          :aria-label="`Crop ${i + 1}`"
          :invalid="saving.field === `crops.${i}.name`"
        />
        <select v-model="one.group" :aria-label="`Group of ${one.name || `crop ${i + 1}`}`">
          <option v-for="(name, key) in CROP_NAMES" :key="key" :value="key">{{ upper(name) }}</option>
        </select>
        <button
          type="button"
          class="link"
          :aria-label="`Remove ${one.name || `crop ${i + 1}`}`"
          @click="form.crops.splice(i, 1)"
        >
          Remove
        </button>
        <span v-if="saving.field === `crops.${i}.name`" class="problem" role="alert">{{ saving.problem }}</span>
      </li>
    </ul>
    <div class="tools"><Button severity="secondary" label="Add a crop" @click="more('crops')" /></div>
    <h2>Seasons</h2>
    <ul class="lines seasons">
      <li v-for="(one, i) in form.seasons" :key="i">
        <InputText
          v-model="one.name"
          maxlength="40"
          :aria-label="`Season ${i + 1}`"
          :invalid="saving.field === `seasons.${i}.name`"
        />
        <span v-for="end in ['first', 'last'] as const" :key="end" class="day">
          {{ end === 'first' ? 'from' : 'to' }}
          <InputText
            inputmode="numeric"
            maxlength="4"
            :invalid="saving.field === `seasons.${i}.${end}`"
            :model-value="dayOf(one[end])"
            :aria-label="`${one.name || `Season ${i + 1}`}: ${end} day`"
            @change="one[end] = join(month(one[end]), ($event.target as HTMLInputElement).value)"
          />
          <select
            :value="month(one[end])"
            :aria-label="`${one.name || `Season ${i + 1}`}: month of its ${end} day`"
            @change="one[end] = join(($event.target as HTMLSelectElement).value, dayOf(one[end]))"
          >
            <option v-for="m in MONTHS" :key="m.key" :value="m.key">{{ m.name }}</option>
          </select>
        </span>
        <button
          type="button"
          class="link"
          :aria-label="`Remove ${one.name || `season ${i + 1}`}`"
          @click="form.seasons.splice(i, 1)"
        >
          Remove
        </button>
        <span v-if="saving.field.startsWith(`seasons.${i}.`)" class="problem" role="alert">{{ saving.problem }}</span>
      </li>
    </ul>
    <div class="tools"><Button severity="secondary" label="Add a season" @click="more('seasons')" /></div>
    <p v-if="saving.problem && !/^(crops|seasons)\.\d/.test(saving.field)" class="problem" role="alert">
      {{ saving.problem }}
    </p>
    <div class="tools">
      <Button type="submit" label="Save" :disabled="saving.busy" /> <span v-if="saved" role="status">Saved.</span>
    </div>
  </form>
</template>

<style scoped src="./Shop.css"></style>
