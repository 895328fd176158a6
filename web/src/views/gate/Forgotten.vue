<script setup lang="ts">
/** Asking for a link to a new password by mail. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { ref } from 'vue'
import { api, write } from '@/api/client'
import { useAttempt } from '@/app/useAttempt'
import Gate from './Gate.vue'

const name = ref('')
const said = ref('')
const at = useAttempt('That did not work. Try again.')
const ask = (): Promise<boolean> =>
  at.run(async () => {
    said.value = (await write(() => api.POST('/api/session/forgotten', { body: { name: name.value } }))).said
  })
</script>

<template>
  <Gate>
    <form novalidate @submit.prevent="ask">
      <h1>A new password</h1>
      <template v-if="said">
        <p role="status">{{ said }}</p>
      </template>
      <template v-else>
        <label for="name">Name or e-mail</label>
        <InputText
          id="name"
          v-model="name"
          maxlength="200"
          v-focus
          autocomplete="username"
          autocapitalize="none"
          :aria-describedby="at.problem ? 'problem' : undefined"
        />
        <p v-if="at.problem" id="problem" class="problem" role="alert">{{ at.problem }}</p>
        <Button type="submit" label="Send me a link" :disabled="at.busy || !name.trim()" />
        <p class="quiet ways">Without an e-mail address, ask the lead of your shop for a link.</p>
      </template>
      <p class="ways"><RouterLink :to="{ name: 'sign-in' }">Back to log in</RouterLink></p>
    </form>
  </Gate>
</template>

<style scoped src="./gate.css"></style>
