<script setup lang="ts">
/** Where machines are worked on: bays with their doors, the yard, lifts, the bench. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { ref } from 'vue'
import { api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import Field from '@/app/Field.vue'
import WholeNumber from '@/app/WholeNumber.vue'
import { useAttempt } from '@/app/useAttempt'

type Place = Required<Schemas['WorkplaceIn']>
const shop = defineModel<Schemas['ShopOut']>({ required: true })
const KINDS = { bay: 'Bay', yard: 'Yard', lift: 'Lift', bench: 'Bench' } as const
const blank = (): Place => ({
  uuid: newUuid(),
  kind: 'bay',
  name: '',
  many: 1,
  door_width: '',
  door_height: '',
  note: '',
})
const form = ref<Place | null>(null)
const gone = ref<Place | null>(null)
const saving = useAttempt('It could not be saved.')
const removing = useAttempt('It could not be removed.')
const plain = ({ uuid, kind, name, many, door_width, door_height, note }: Schemas['WorkplaceOut']): Place => ({
  ...blank(),
  ...{ uuid, kind, name, many, door_width, door_height, note },
})
const post = async (body: Place): Promise<void> => void (shop.value = await write(() => api.POST('/api/shop/places', { body })))
async function keep(): Promise<void> {
  if (await saving.run(() => post({ ...form.value! }))) form.value = null
}
const remove = (one: Schemas['WorkplaceOut']): Promise<boolean> =>
  removing.run(async () => {
    const params = { path: { workplace_id: one.uuid } }
    shop.value = await write(() => api.POST('/api/shop/places/{workplace_id}/removed', { params }))
    gone.value = plain(one)
  })
const putBack = (): Promise<boolean> =>
  removing.run(async () => {
    await post(gone.value!)
    gone.value = null
  })
const doors = (one: Schemas['WorkplaceOut']): string =>
  [one.door_width && `${one.door_width} wide`, one.door_height && `${one.door_height} high`].filter(Boolean).join(', ')
</script>

<template>
  <p v-if="removing.problem" class="problem" role="alert">{{ removing.problem }}</p>
  <p v-if="gone" role="status">
    {{ gone.name }} removed. <button type="button" class="link" @click="putBack">Put it back</button>
  </p>
  <p v-if="!shop.places.length && !form" class="card">
    No place yet. With the doors of your bays it can be said which machine passes, folded.
  </p>
  <ul v-else class="places">
    <li v-for="one in shop.places" :key="one.uuid" class="card">
      <div class="tools">
        <h2 class="grow">
          {{ one.name }} <span class="quiet">{{ one.kind_name }}{{ one.many > 1 ? `, ${one.many} of them` : '' }}</span>
        </h2>
        <button type="button" class="link" :aria-label="`Change ${one.name}`" @click="form = plain(one)">Change</button>
        <button type="button" class="link" :aria-label="`Remove ${one.name}`" @click="remove(one)">Remove</button>
      </div>
      <p>{{ doors(one) ? `Door ${doors(one)}` : 'No door in the way' }}{{ one.note ? `. ${one.note}` : '' }}</p>
    </li>
  </ul>
  <form v-if="form" class="card" aria-label="A place to work" novalidate @submit.prevent="keep">
    <div class="row">
      <Field label="Name" name="name" :at="saving"><InputText v-model="form.name" v-focus maxlength="60" /></Field>
      <Field label="What it is" name="kind" :at="saving">
        <select v-model="form.kind">
          <option v-for="(name, key) in KINDS" :key="key" :value="key">{{ name }}</option>
        </select>
      </Field>
      <Field label="How many" name="many" :at="saving"><WholeNumber v-model="form.many" /></Field>
      <Field label="Door width" hint="such as 4.2 m" name="door_width" :at="saving"
        ><InputText v-model="form.door_width" maxlength="20"
      /></Field>
      <Field label="Door height" hint="such as 4.5 m" name="door_height" :at="saving"
        ><InputText v-model="form.door_height" maxlength="20"
      /></Field>
    </div>
    <Field label="Note" name="note" :at="saving"><InputText v-model="form.note" maxlength="200" /></Field>
    <p
      v-if="saving.problem && !['name', 'kind', 'many', 'door_width', 'door_height', 'note'].includes(saving.field)"
      class="problem"
      role="alert"
    >
      {{ saving.problem }}
    </p>
    <div class="tools">
      <Button type="submit" label="Save" :disabled="saving.busy" />
      <Button text severity="secondary" label="Cancel" data-out @click="form = null" />
    </div>
  </form>
  <div v-else class="tools"><Button label="Add a place" @click="form = blank()" /></div>
</template>

<style scoped src="./Shop.css"></style>
