<script setup lang="ts">
/** Taking an invitation up: with an account made here, or as who is signed in. */
import Button from '@/design/controls/button'
import { onMounted, reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api, Refused, type Schemas } from '@/api/client'
import { useSession } from '@/app/session'
import { useAttempt } from '@/app/useAttempt'
import AccountFields from './AccountFields.vue'
import Gate from './Gate.vue'

const props = defineProps<{ secret: string }>()
const session = useSession()
const router = useRouter()
const to = ref<Schemas['InvitedTo'] | null>(null)
const account = reactive({ name: '', username: '', password: '' })
const reading = useAttempt('The invitation could not be read.')
const at = useAttempt('That did not work. Try again.')
const path = { path: { secret: props.secret } }

onMounted(() =>
  reading.run(async () => {
    to.value = await answer(api.GET('/api/session/invitation/{secret}', { params: path }))
    account.name = to.value.name
  }),
)
const join = (): Promise<boolean> =>
  at.run(async () => {
    if (!session.known) await session.load()
    const send = () =>
      answer(api.POST('/api/session/invitation/{secret}', { params: path, body: session.me ? emptied : { ...account } }))
    try {
      session.take(await send())
    } catch (error) {
      if (!(error instanceof Refused) || error.status !== 403) throw error
      await session.load()
      session.take(await send())
    }
    await router.push({ name: 'machines' })
  })
const emptied = { name: '', username: '', password: '' }
const other = { name: 'sign-in', query: { next: `/join/${props.secret}` } }
const asSomebodyElse = (): Promise<boolean> =>
  at.run(async () => {
    await session.signOut().catch((error: unknown) => {
      if (!(error instanceof Refused) || error.passing) throw error // else this login has ended already
    })
    await session.load()
  })
</script>

<template>
  <Gate>
    <form novalidate @submit.prevent="join">
      <h1>{{ to ? `Join ${to.shop}` : 'An invitation' }}</h1>
      <template v-if="reading.problem">
        <p class="problem" role="alert">{{ reading.problem }}</p>
        <p class="ways"><RouterLink :to="{ name: 'sign-in' }">Log in</RouterLink></p>
      </template>
      <p v-else-if="!to" class="quiet" role="status">Reading the invitation …</p>
      <template v-else>
        <p class="quiet">{{ to.asked_by }} asks you to join as {{ to.role_name.toLowerCase() }}.</p>
        <p v-if="session.me">
          You are signed in as <b>{{ session.me.name }}</b>, {{ session.me.shop }}. You change over between your shops at the
          top.
        </p>
        <AccountFields
          v-else
          v-model:name="account.name"
          v-model:username="account.username"
          v-model:password="account.password"
          :at="at"
        />
        <p v-if="at.problem && !at.field" class="problem" role="alert">{{ at.problem }}</p>
        <Button type="submit" :label="session.me ? `Join as ${session.me.name}` : 'Join'" :disabled="at.busy" />
        <p class="ways">
          <button v-if="session.me" type="button" class="link" @click="asSomebodyElse">I am somebody else</button>
          <RouterLink v-else :to="other">I have an account here already</RouterLink>
        </p>
      </template>
    </form>
  </Gate>
</template>

<style scoped src="./gate.css"></style>
<style scoped>
.link {
  border: 0;
  padding: 0;
  min-height: var(--target);
  background: none;
  color: var(--accent);
  text-decoration: underline;
  cursor: pointer;
}
</style>
