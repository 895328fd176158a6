<script setup lang="ts">
/** One's own account: name and mail, password, second factor, where one is signed in. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { onMounted, reactive, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import Field from '@/app/Field.vue'
import { useSession } from '@/app/session'
import { useAttempt } from '@/app/useAttempt'
import { moment } from '@/app/words'
import SecondFactor from './SecondFactor.vue'
import { deviceName } from './deviceName'

const session = useSession()
const account = ref<Schemas['AccountOut'] | null>(null)
const reading = useAttempt('Your account could not be read.')
const naming = useAttempt('It could not be saved.')
const changing = useAttempt('The password could not be changed.')
const ending = useAttempt()
const who = reactive({ name: '', email: '' })
const words = reactive({ old: '', new: '' })
const said = ref('')

const load = (): Promise<boolean> =>
  reading.run(async () => {
    account.value = await answer(api.GET('/api/session/account'))
    Object.assign(who, { name: account.value.name, email: account.value.email })
  })
onMounted(load)

const name = (): Promise<boolean> =>
  naming.run(async () => {
    account.value = await write(() => api.POST('/api/session/account', { body: { ...who } }))
    said.value = 'Saved.'
    await session.load()
  })
const changePassword = (): Promise<boolean> =>
  changing.run(async () => {
    account.value = await write(() => api.POST('/api/session/password', { body: { ...words } }))
    await session.load() // with the password the token for writes is another one
    Object.assign(words, { old: '', new: '' })
    said.value = 'You have a new password, and are signed out everywhere else.'
  })
const end = (ids: number[] | null): Promise<boolean> =>
  ending.run(async () => void (account.value = await write(() => api.POST('/api/session/devices/end', { body: { ids } }))))
</script>

<template>
  <section class="desk own">
    <header>
      <h1>{{ session.me?.name }}</h1>
      <p class="quiet">
        {{ session.me?.role_name }}, {{ session.me?.shop
        }}<template v-if="account">; logs in as {{ account.username }}</template>
      </p>
    </header>
    <p v-if="session.me?.code_first" class="first" role="alert">
      This shop wants a code beside the password. Set up the second factor below; then everything else opens.
    </p>
    <p v-if="reading.problem" class="trouble" role="alert">{{ reading.problem }}</p>
    <p v-else-if="!account" class="quiet" role="status">Reading your account …</p>
    <p v-if="said" class="said" role="status">{{ said }}</p>
    <template v-if="account">
      <SecondFactor v-if="session.me?.code_first" :account="account" @changed="load" />
      <form class="card" aria-label="Name and e-mail" novalidate @submit.prevent="name">
        <h2>Name and e-mail</h2>
        <Field label="Name" name="name" :at="naming"
          ><InputText v-model="who.name" autocomplete="name" maxlength="120"
        /></Field>
        <Field label="E-mail" hint="for a forgotten password" name="email" :at="naming"
          ><InputText v-model="who.email" maxlength="200" type="email" autocomplete="email"
        /></Field>
        <p v-if="naming.problem && !naming.field" class="problem" role="alert">{{ naming.problem }}</p>
        <div class="tools"><Button type="submit" label="Save" :disabled="naming.busy" /></div>
      </form>
      <form class="card" aria-label="Password" novalidate @submit.prevent="changePassword">
        <h2>Password</h2>
        <input type="text" :value="account.username" autocomplete="username" hidden />
        <Field label="The one you have" name="old" :at="changing"
          ><InputText v-model="words.old" maxlength="128" type="password" autocomplete="current-password"
        /></Field>
        <Field label="A new one" hint="at least 12 characters" name="new" :at="changing"
          ><InputText v-model="words.new" maxlength="128" type="password" autocomplete="new-password"
        /></Field>
        <p v-if="changing.problem && !changing.field" class="problem" role="alert">{{ changing.problem }}</p>
        <div class="tools">
          <Button type="submit" severity="secondary" label="Change the password" :disabled="changing.busy || !words.old" />
        </div>
      </form>
      <SecondFactor v-if="!session.me?.code_first" :account="account" @changed="load" />
      <section class="card" aria-label="Where you are signed in">
        <h2>Where you are signed in</h2>
        <p v-if="ending.problem" class="problem" role="alert">{{ ending.problem }}</p>
        <ul>
          <li v-for="one in account.devices" :key="one.id" class="device">
            <span
              ><b>{{ deviceName(one.device) }}</b
              ><template v-if="one.here">, here</template>
              <small class="quiet">since {{ moment(one.at) }}, {{ one.address }}</small></span
            >
            <Button
              v-if="!one.here"
              size="small"
              severity="secondary"
              label="Sign out there"
              :aria-label="`Sign out there: ${deviceName(one.device)}, since ${moment(one.at)}`"
              @click="end([one.id])"
            />
          </li>
        </ul>
        <div v-if="account.devices.length > 2" class="tools">
          <Button severity="secondary" label="Sign out everywhere else" @click="end(null)" />
        </div>
      </section>
    </template>
  </section>
</template>

<style scoped>
.own {
  grid-template-columns: repeat(auto-fit, minmax(min(420px, 100%), 1fr));
}
.own > :not(.card) {
  grid-column: 1 / -1;
}
.first {
  padding: 10px 14px;
  border-left: 4px solid var(--accent);
  background: var(--accent-soft);
  border-radius: 4px;
  font-weight: 600;
}
.said {
  font-weight: 600;
}
.device {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  justify-content: space-between;
  min-height: 52px;
}
.device + .device {
  border-top: 1px solid var(--line);
}
.device small {
  display: block;
}
</style>
