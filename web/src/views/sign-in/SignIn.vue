<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { Refused } from '@/api/client'
import { useSession } from '@/app/session'

const session = useSession()
const route = useRoute()
const router = useRouter()
const username = ref('')
const password = ref('')
const problem = ref('')
const busy = ref(false)

/** Only addresses of our own: a link must not send anybody elsewhere. The report is the server's page, the rest the router's. */
async function goOn(): Promise<void> {
  const next = typeof route.query.next === 'string' && /^\/(?!\/)/.test(route.query.next) ? route.query.next : '/'
  if (/\/(report(\.pdf)?|readings\.csv|parts\.csv)$/.test(next)) window.location.assign(next)
  else await router.push(next)
}

async function enter(): Promise<void> {
  busy.value = true
  problem.value = ''
  try {
    if (!session.known) await session.load()
    await session.signIn(username.value.trim(), password.value)
    await goOn()
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'That did not work. Try again.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="gate">
    <svg class="ground" viewBox="0 0 600 190" aria-hidden="true" preserveAspectRatio="xMidYMid meet">
      <path class="soil" d="M0 132h262l22 34 22-34h294v58H0z" />
      <path class="dash" d="M0 132h600" />
      <circle cx="258" cy="96" r="62" /><circle cx="258" cy="96" r="12" /><ellipse cx="312" cy="96" rx="52" ry="62" /><ellipse cx="312" cy="96" rx="10" ry="12" />
      <path d="M60 40v80M60 52l130 18M60 92l130 18M190 60v60M420 40c30 8 50 40 66 88M486 128h40" />
    </svg>
    <form class="form" novalidate @submit.prevent="enter">
      <h1>Lumvek</h1>
      <p class="quiet">Inspect, judge, and know what to order.</p>
      <label for="username">Name</label>
      <InputText id="username" v-model="username" autocomplete="username" autocapitalize="none" autofocus required />
      <label for="password">Password</label>
      <InputText id="password" v-model="password" type="password" autocomplete="current-password" required :aria-describedby="problem ? 'problem' : undefined" :invalid="!!problem" />
      <p v-if="problem" id="problem" class="problem" role="alert">{{ problem }}</p>
      <Button type="submit" label="Log in" :disabled="busy || !username || !password" />
    </form>
  </div>
</template>

<style scoped>
.gate { min-height: 100vh; display: grid; align-content: center; justify-items: center; gap: 8px; padding: 24px; }
.ground { width: min(600px, 100%); }
.ground * { fill: none; stroke: var(--ink); stroke-width: 3; stroke-linecap: round; }
.ground .soil { fill: var(--soil); stroke: none; opacity: 0.55; }
.ground .dash { stroke: var(--steel); stroke-dasharray: 7 8; }
.form { width: min(360px, 100%); display: grid; gap: 6px; }
.form h1 { font-size: 2.2rem; color: var(--accent); }
label { font-weight: 600; margin-top: 10px; }
.problem { color: var(--stop); font-weight: 600; }
.form :deep(.p-button) { margin-top: 16px; min-height: 48px; }
</style>
