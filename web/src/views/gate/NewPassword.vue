<script setup lang="ts">
/** Choosing a new password by a link. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { ref } from 'vue'
import { api, write } from '@/api/client'
import { useAttempt } from '@/app/useAttempt'
import Gate from './Gate.vue'

const props = defineProps<{ who: string; token: string }>()
const password = ref('')
const said = ref('')
const at = useAttempt('That did not work. Try again.')
const set = (): Promise<boolean> =>
  at.run(async () => {
    const body = { who: props.who, token: props.token, password: password.value }
    said.value = (await write(() => api.POST('/api/session/new-password', { body }))).said
  })
</script>

<template>
  <Gate>
    <form novalidate @submit.prevent="set">
      <h1>A new password</h1>
      <template v-if="said">
        <p role="status">{{ said }}</p>
        <p class="ways"><RouterLink :to="{ name: 'sign-in' }">Log in</RouterLink></p>
      </template>
      <template v-else>
        <label for="new-password">At least 12 characters</label>
        <InputText
          id="new-password"
          v-model="password"
          maxlength="128"
          v-focus
          type="password"
          autocomplete="new-password"
          :aria-describedby="at.problem ? 'problem' : undefined"
          :invalid="at.field === 'password'"
        />
        <p v-if="at.problem" id="problem" class="problem" role="alert">{{ at.problem }}</p>
        <Button type="submit" label="Keep it" :disabled="at.busy || !password" />
      </template>
    </form>
  </Gate>
</template>

<style scoped src="./gate.css"></style>
