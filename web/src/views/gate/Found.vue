<script setup lang="ts">
/** The first shop of an empty installation, and who leads it. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { reactive } from 'vue'
import { useRouter } from 'vue-router'
import { api, write } from '@/api/client'
import Field from '@/app/Field.vue'
import { useSession } from '@/app/session'
import { useAttempt } from '@/app/useAttempt'
import AccountFields from './AccountFields.vue'
import Gate from './Gate.vue'

const session = useSession()
const router = useRouter()
const made = reactive({ secret: '', shop: '', name: '', username: '', password: '' })
const at = useAttempt('That did not work. Try again.')
const found = (): Promise<boolean> =>
  at.run(async () => {
    session.take(await write(() => api.POST('/api/session/found', { body: { ...made } })))
    await router.push({ name: 'machines' })
  })
</script>

<template>
  <Gate>
    <form novalidate @submit.prevent="found">
      <h1>Lumvek</h1>
      <p class="quiet">Nobody works here yet. Open the shop; you lead it.</p>
      <Field label="The key the server printed when it started" name="secret" :at="at"
        ><InputText
          v-model="made.secret"
          maxlength="128"
          v-focus
          autocomplete="off"
          autocapitalize="none"
          placeholder="xxxx-xxxx-xxxx-xxxx"
      /></Field>
      <Field label="Your shop" name="shop" :at="at"
        ><InputText v-model="made.shop" autocomplete="organization" maxlength="120"
      /></Field>
      <AccountFields v-model:name="made.name" v-model:username="made.username" v-model:password="made.password" :at="at" />
      <p v-if="at.problem && !at.field" class="problem" role="alert">{{ at.problem }}</p>
      <Button type="submit" label="Open the shop" :disabled="at.busy || !made.secret.trim()" />
    </form>
  </Gate>
</template>

<style scoped src="./gate.css"></style>
