<script setup lang="ts">
/** When the shop works. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { reactive, ref } from 'vue'
import { api, write, type Schemas } from '@/api/client'
import Field from '@/app/Field.vue'
import { useAttempt } from '@/app/useAttempt'

const shop = defineModel<Schemas['ShopOut']>({ required: true })
const form = reactive({ hours: shop.value.hours, closed: shop.value.closed })
const saving = useAttempt('It could not be saved.')
const saved = ref(false)
const keep = (): Promise<boolean> =>
  saving.run(async () => {
    shop.value = await write(() => api.POST('/api/shop/hours', { body: { ...form } }))
    Object.assign(form, { hours: shop.value.hours, closed: shop.value.closed })
    saved.value = true
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
