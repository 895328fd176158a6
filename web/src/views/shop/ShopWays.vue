<script setup lang="ts">
/** The units of who joins, the time zone, how days are written. */
import Button from '@/design/controls/button'
import { reactive } from 'vue'
import { api, write, type Schemas } from '@/api/client'
import Field from '@/app/Field.vue'
import { useSession } from '@/app/session'
import { useSaving } from './useSaving'

const shop = defineModel<Schemas['ShopOut']>({ required: true })
const session = useSession()
const { time_zone, units, day_form } = shop.value
const form = reactive({ time_zone, units, day_form })
const { saving, saved, keep } = useSaving(async () => {
  shop.value = await write(() => api.POST('/api/shop/ways', { body: { ...form } }))
  await session.load()
})
</script>

<template>
  <form class="card" aria-label="Units, time and days" novalidate @submit.prevent="keep" @change="saved = false">
    <Field label="Units" hint="of who joins; everybody may change their own" name="units" :at="saving">
      <select v-model="form.units">
        <option value="mm">Millimetres</option>
        <option value="in">Inches</option>
      </select>
    </Field>
    <Field label="Time zone" name="time_zone" :at="saving">
      <select v-model="form.time_zone">
        <option value="">As the server</option>
        <option v-for="one in shop.zones" :key="one" :value="one">{{ one.replaceAll('_', ' ') }}</option>
      </select>
    </Field>
    <Field label="Days are written" name="day_form" :at="saving">
      <select v-model="form.day_form">
        <option v-for="(example, key) in shop.day_forms" :key="key" :value="key">{{ example }}</option>
      </select>
    </Field>
    <p v-if="saving.problem && !saving.field" class="problem" role="alert">{{ saving.problem }}</p>
    <div class="tools">
      <Button type="submit" label="Save" :disabled="saving.busy" /> <span v-if="saved" role="status">Saved.</span>
    </div>
  </form>
</template>

<style scoped src="./Shop.css"></style>
