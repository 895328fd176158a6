<script setup lang="ts">
/** A code from an authenticator app beside the password: setting it up, the codes for once, ending it. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { ref } from 'vue'
import { api, Refused, write, type Schemas } from '@/api/client'
import { useSession } from '@/app/session'
import { useAttempt } from '@/app/useAttempt'

defineProps<{ account: Schemas['AccountOut'] }>()
const CONFLICT = 409
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const key = ref<Schemas['KeyOut'] | null>(null)
const code = ref('')
const password = ref('')
const codes = ref<string[]>([])
/** What the password is asked for. */
const asks = ref<'' | 'codes' | 'end'>('')
const at = useAttempt('It could not be done.')

const begin = (): Promise<boolean> =>
  at.run(async () => void (key.value = await write(() => api.POST('/api/session/second-factor'))))
const confirm = (): Promise<boolean> =>
  at.run(async () => {
    try {
      codes.value = (await write(() => api.POST('/api/session/second-factor/confirm', { body: { code: code.value } }))).codes
    } catch (error) {
      if (!(error instanceof Refused) || error.status !== CONFLICT) throw error
      // The answer to an earlier press was lost: it is set up, and the codes can be had anew.
      key.value = null
      await session.load()
      emit('changed')
      throw error
    }
    key.value = null
    code.value = ''
  })
function ask(what: typeof asks.value): void {
  asks.value = what
  password.value = at.problem = ''
}
const renew = (): Promise<boolean> =>
  at.run(async () => {
    const body = { password: password.value }
    codes.value = (await write(() => api.POST('/api/session/second-factor/codes', { body }))).codes
    ask('')
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
    ask('')
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
      <form v-if="asks" class="tools" novalidate @submit.prevent="asks === 'end' ? end() : renew()">
        <label class="field"
          >Your password<InputText v-model="password" maxlength="128" v-focus type="password" autocomplete="current-password"
        /></label>
        <Button
          type="submit"
          severity="secondary"
          :label="asks === 'end' ? 'End it' : 'Give me new codes'"
          :disabled="at.busy || !password"
        />
        <Button type="button" text severity="secondary" label="Cancel" data-out @click="ask('')" />
      </form>
      <p v-if="at.problem" class="problem" role="alert">{{ at.problem }}</p>
      <p v-if="asks === 'codes'" class="quiet">Codes from before open nothing any more.</p>
      <div v-if="!asks" class="tools">
        <Button severity="secondary" label="New codes for once" @click="ask('codes')" />
        <Button v-if="!account.second_factor_wanted" severity="secondary" label="End the second factor" @click="ask('end')" />
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
