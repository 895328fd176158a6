<script setup lang="ts">
/** What the shop is called, where it is, its mark for reports, how one logs in. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { reactive, ref } from 'vue'
import { api, write, type Schemas } from '@/api/client'
import Field from '@/app/Field.vue'
import FilePick from '@/app/FilePick.vue'
import { useSession } from '@/app/session'
import { useAttempt } from '@/app/useAttempt'
import { useSaving } from './useSaving'

const shop = defineModel<Schemas['ShopOut']>({ required: true })
const session = useSession()
const { name, address, second_factor } = shop.value
const form = reactive({ name, address, second_factor })
const marking = useAttempt('The picture could not be saved.')
/** Another picture has another address. */
const edition = ref(0)
/** The picture that was taken away last, for who wants it back. */
const gone = ref<Blob | null>(null)
const { saving, saved, keep } = useSaving(async () => {
  shop.value = await write(() => api.POST('/api/shop', { body: { ...form } }))
  await session.load()
})
const mark = (file: Blob): Promise<boolean> =>
  marking.run(async () => {
    const body = new FormData()
    body.append('photo', file)
    shop.value = await write(() =>
      api.POST('/api/shop/mark', { body: body as never, bodySerializer: (given) => given as never }),
    )
    edition.value++
    gone.value = null
  })
const unmark = (): Promise<boolean> =>
  marking.run(async () => {
    const had = await fetch('/api/shop/mark')
    shop.value = await write(() => api.POST('/api/shop/mark/removed'))
    gone.value = had.ok ? await had.blob() : null
  })
</script>

<template>
  <form class="card" aria-label="The shop" novalidate @submit.prevent="keep" @input="saved = false">
    <Field label="Name" hint="as it stands on reports" name="name" :at="saving"
      ><InputText v-model="form.name" maxlength="120"
    /></Field>
    <Field label="Address" hint="under it" name="address" :at="saving"
      ><InputText v-model="form.address" maxlength="300"
    /></Field>
    <label class="tick"
      ><input v-model="form.second_factor" type="checkbox" />
      <span
        >Everybody needs a code beside the password<small class="quiet"
          >from an authenticator app; who has none sets it up before anything else opens</small
        ></span
      ></label
    >
    <p v-if="saving.problem && !saving.field" class="problem" role="alert">{{ saving.problem }}</p>
    <div class="tools">
      <Button type="submit" label="Save" :disabled="saving.busy" />
      <span v-if="saved" role="status">Saved.</span>
      <RouterLink v-if="saved && !session.me?.begun" :to="{ name: 'machines' }">On with the first day</RouterLink>
    </div>
  </form>
  <section class="card" aria-labelledby="mark">
    <h2 id="mark">Mark for reports</h2>
    <p class="quiet">A small picture at the head of reports, lists and orders: JPEG, PNG or WebP.</p>
    <img v-if="shop.has_mark" class="mark" :src="`/api/shop/mark?${edition}`" alt="The shop’s mark" />
    <p v-if="marking.problem" class="problem" role="alert">{{ marking.problem }}</p>
    <div class="tools">
      <FilePick :label="shop.has_mark ? 'Another picture' : 'Pick a picture'" accept="image/*" @file="mark" />
      <button v-if="shop.has_mark" type="button" class="link" @click="unmark">Take it away</button>
      <span v-if="gone" role="status"
        >Taken away. <button type="button" class="link" @click="mark(gone!)">Put it back</button></span
      >
    </div>
  </section>
  <section class="card" aria-labelledby="everything">
    <h2 id="everything">Everything of this shop</h2>
    <p class="quiet">
      One open file: a table each as JSON and as CSV, pictures as files, and a page that says what is what. It can be read into
      another installation. Passwords, second factors and links are not in it.
    </p>
    <div class="tools"><a href="/shop.zip">Keep it as a file (ZIP)</a></div>
  </section>
</template>

<style scoped src="./Shop.css"></style>
