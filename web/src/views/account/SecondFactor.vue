<script setup lang="ts">
/** A code from an authenticator app beside the password: setting it up, the codes for once, ending it. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { ref } from 'vue'
import { api, write, type Schemas } from '@/api/client'
import { useSession } from '@/app/session'
import { useAttempt } from '@/app/useAttempt'

defineProps<{ account: Schemas['AccountOut'] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const key = ref<Schemas['KeyOut'] | null>(null)
const code = ref('')
const password = ref('')
const codes = ref<string[]>([])
const ending = ref(false)
const at = useAttempt('It could not be done.')

const begin = (): Promise<boolean> =>
  at.run(async () => void (key.value = await write(() => api.POST('/api/session/second-factor'))))
const confirm = (): Promise<boolean> =>
  at.run(async () => {
    codes.value = (await write(() => api.POST('/api/session/second-factor/confirm', { body: { code: code.value } }))).codes
    key.value = null
    code.value = ''
  })
const done = (): Promise<boolean> =>
  at.run(async () => {
    await session.load()
    codes.value = []
    emit('changed')
  })
const end = (): Promise<boolean> =>
  at.run(async () => {
    await write(() => api.POST('/api/session/second-factor/end', { body: { password: password.value } }))
    ending.value = false
    password.value = ''
    emit('changed')
  })
</script>

<template>
  <section class="card" aria-label="Second factor">
    <h2>Second factor</h2>
    <template v-if="codes.length">
      <p role="alert">
        <b>Write these down now; they are not shown again.</b> Each lets you in once, should the telephone be lost.
      </p>
      <ol class="codes">
        <li v-for="one in codes" :key="one">{{ one }}</li>
      </ol>
      <div class="tools"><Button label="I have written them down" :disabled="at.busy" @click="done" /></div>
      <p v-if="at.problem" class="problem" role="alert">{{ at.problem }}</p>
    </template>
    <form v-else-if="key" class="key" novalidate @submit.prevent="confirm">
      <img :src="key.picture" alt="The key as a picture, for the app to scan" width="200" height="200" />
      <div class="steps">
        <p>
          Scan it with the authenticator app, or type the key there: <code>{{ key.letters }}</code>
        </p>
        <label class="field"
          >The six digits it shows<InputText
            v-model="code"
            v-focus
            inputmode="numeric"
            autocomplete="one-time-code"
            maxlength="9"
            :invalid="at.field === 'code'"
        /></label>
        <p v-if="at.problem" class="problem" role="alert">{{ at.problem }}</p>
        <div class="tools">
          <Button type="submit" label="Confirm" :disabled="at.busy || !code.trim()" />
          <Button type="button" text severity="secondary" label="Cancel" data-out @click="key = null" />
        </div>
      </div>
    </form>
    <template v-else-if="account.second_factor">
      <p>An authenticator app is set up. Codes for once that are left: {{ account.codes_left }}.</p>
      <form v-if="ending" class="tools" novalidate @submit.prevent="end">
        <label class="field"
          >Your password<InputText v-model="password" maxlength="128" v-focus type="password" autocomplete="current-password"
        /></label>
        <Button type="submit" severity="secondary" label="End it" :disabled="at.busy || !password" />
        <Button type="button" text severity="secondary" label="Cancel" data-out @click="ending = false" />
      </form>
      <p v-if="at.problem" class="problem" role="alert">{{ at.problem }}</p>
      <div v-if="!ending && !account.second_factor_wanted" class="tools">
        <Button severity="secondary" label="End the second factor" @click="ending = true" />
      </div>
    </template>
    <template v-else>
      <p>A code from an app on your telephone beside the password: who knows the password alone stays outside.</p>
      <p v-if="at.problem" class="problem" role="alert">{{ at.problem }}</p>
      <div class="tools"><Button severity="secondary" label="Set it up" :disabled="at.busy" @click="begin" /></div>
    </template>
  </section>
</template>

<style scoped>
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
}
.key img {
  border-radius: 6px;
  background: #fff;
}
.steps {
  flex: 1 1 260px;
  display: grid;
  gap: 10px;
  align-content: start;
}
code {
  font-weight: 600;
  overflow-wrap: anywhere;
}
.codes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(130px, 1fr));
  gap: 4px 16px;
  font-size: 1.15rem;
  font-weight: 600;
}
label.field {
  font-weight: 600;
}
</style>
