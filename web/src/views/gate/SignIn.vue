<script setup lang="ts">
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { Refused } from '@/api/client'
import { useSession } from '@/app/session'
import Gate from './Gate.vue'
import { onward } from './onward'

const session = useSession()
const route = useRoute()
const router = useRouter()
const username = ref('')
const password = ref('')
const code = ref('')
/** The account wants a code beside the password. */
const wantsCode = ref(false)
const problem = ref('')
const field = ref('')
const busy = ref(false)

/** Only addresses of our own: a link must not send anybody elsewhere. The report is the server's page, the rest the router's. */
async function goOn(): Promise<void> {
  const next = onward(route.query.next)
  if (/\/(report(\.pdf)?|readings\.csv|parts\.csv)$/.test(next)) window.location.assign(next)
  else await router.push(next)
}

async function enter(): Promise<void> {
  busy.value = true
  problem.value = field.value = ''
  try {
    if (!session.known) await session.load()
    await session.signIn(username.value.trim(), password.value, code.value)
    await goOn()
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'That did not work. Try again.'
    field.value = error instanceof Refused ? error.field : ''
    if (field.value === 'code') {
      if (!wantsCode.value) problem.value = '' // the field that appears says it
      wantsCode.value = true
    }
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <Gate>
    <form novalidate @submit.prevent="enter">
      <h1>Lumvek</h1>
      <p class="quiet">Inspect, judge, and know what to order.</p>
      <label for="username">Name</label>
      <InputText
        id="username"
        v-model="username"
        maxlength="200"
        autocomplete="username"
        autocapitalize="none"
        v-focus
        required
      />
      <label for="password">Password</label>
      <InputText
        id="password"
        v-model="password"
        maxlength="128"
        type="password"
        autocomplete="current-password"
        required
        :aria-describedby="problem ? 'problem' : undefined"
        :invalid="field === 'password'"
      />
      <template v-if="wantsCode">
        <label for="code">Code of your authenticator app <small class="quiet">or one for once</small></label>
        <InputText
          id="code"
          v-model="code"
          maxlength="40"
          v-focus
          autocomplete="one-time-code"
          autocapitalize="none"
          :aria-describedby="problem ? 'problem' : undefined"
          :invalid="field === 'code' && !!problem"
        />
      </template>
      <p v-if="problem" id="problem" class="problem" role="alert">{{ problem }}</p>
      <Button type="submit" label="Log in" :disabled="busy || !username || !password || (wantsCode && !code.trim())" />
      <p class="ways"><RouterLink :to="{ name: 'forgotten' }">I have forgotten my password</RouterLink></p>
    </form>
  </Gate>
</template>

<style scoped src="./gate.css"></style>
