<script setup lang="ts">
/** Currency and rates that the shop counts with. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, reactive, ref } from 'vue'
import { api, write, type Schemas } from '@/api/client'
import { useSession } from '@/app/session'
import { wholeIfTyped } from '@/app/figures'
import { useAttempt } from '@/app/useAttempt'

const terms = defineModel<Schemas['TermsOut']>({ required: true })
const session = useSession()
const may = computed(() => session.may('change rates'))
const RATES = {
  currency: 'Currency, three letters',
  labour_rate: 'An hour of work',
  km_cost: 'A kilometre',
  downtime_rate: 'An hour standing in season',
  late_cost_per_day: 'A day a machine waits for parts',
  days_before: 'Parts wanted, days before the season',
} as const
const typed = (of: Schemas['TermsOut']): Record<keyof typeof RATES, string> => ({
  currency: of.currency,
  labour_rate: String(of.labour_rate),
  km_cost: String(of.km_cost),
  downtime_rate: String(of.downtime_rate),
  late_cost_per_day: String(of.late_cost_per_day),
  days_before: String(of.days_before),
})
const rates = reactive(typed(terms.value))
const rating = useAttempt('The rates could not be saved.')
const kept = ref(false)
const keep = (): Promise<boolean> =>
  rating.run(async () => {
    const days_before = wholeIfTyped(rates.days_before, 'days_before') ?? 0
    const sent = { ...rates }
    const body = { ...sent, days_before, now: terms.value.now ?? null }
    const found = (await write(() => api.POST('/api/supply/terms', { body }))).terms
    terms.value = found
    // As they are understood, but for what was typed on meanwhile.
    const understood = typed(found)
    for (const key of Object.keys(RATES) as (keyof typeof RATES)[]) if (rates[key] === sent[key]) rates[key] = understood[key]
    kept.value = true
  })
</script>

<template>
  <form class="card form" aria-label="Rates" @submit.prevent="keep">
    <h2 class="wide">Rates</h2>
    <label v-for="(label, key) in RATES" :key="key" class="field"
      >{{ label
      }}<InputText v-model="rates[key]" maxlength="40" :disabled="!may" :invalid="rating.field === key" @input="kept = false"
    /></label>
    <p v-if="rating.problem" class="problem wide" role="alert">{{ rating.problem }}</p>
    <div v-if="may" class="tools wide">
      <Button type="submit" severity="secondary" label="Save the rates" :disabled="rating.busy" /><span
        v-if="kept"
        role="status"
        >Saved.</span
      >
    </div>
  </form>
</template>

<style scoped>
.form {
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 12px 16px;
}
.wide {
  grid-column: 1 / -1;
}
label.field {
  font-weight: 600;
}
</style>
