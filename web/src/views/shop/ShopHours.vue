<script setup lang="ts">
/** When the shop works. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { reactive } from 'vue'
import { api, write, type Schemas } from '@/api/client'
import Field from '@/app/Field.vue'
import { useSaving } from './useSaving'

const shop = defineModel<Schemas['ShopOut']>({ required: true })
const form = reactive({ hours: shop.value.hours, closed: shop.value.closed })
const { saving, saved, keep } = useSaving(async () => {
  const typed = { ...form }
  const found = await write(() => api.POST('/api/shop/hours', { body: typed }))
  shop.value = found
  // As they are understood, unless they were typed on meanwhile.
  if (form.hours === typed.hours) form.hours = found.hours
  if (form.closed === typed.closed) form.closed = found.closed
})
</script>

<template>
  <form class="card" aria-label="Working hours" novalidate @submit.prevent="keep" @input="saved = false">
    <Field label="Working hours" hint="such as Mon–Fri 07:30–17:00, Sat 08:00–12:00" name="hours" :at="saving"
      ><InputText v-model="form.hours" maxlength="300"
    /></Field>
    <Field label="Closed on" hint="such as 2026-12-24, 2026-12-31" name="closed" :at="saving"
      ><InputText v-model="form.closed" maxlength="2000"
    /></Field>
    <p v-if="saving.problem && !saving.field" class="problem" role="alert">{{ saving.problem }}</p>
    <div class="tools">
      <Button type="submit" label="Save" :disabled="saving.busy" /> <span v-if="saved" role="status">Saved.</span>
    </div>
  </form>
</template>

<style scoped src="./Shop.css"></style>
