<script setup lang="ts">
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { Refused } from '@/api/client'
import { useSession } from '@/app/session'
import { SIGNS } from '@/design/stationSigns'

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

/** What the eye meets first: a planter's row, from residue to closing. */
const shown = Object.fromEntries(
  ['residue', 'arms', 'opener', 'tube', 'gauge-wheel', 'depth', 'firming', 'closing', 'load'].map((key) => [key, SIGNS[key]]),
)
</script>

<template>
  <div class="gate">
    <ol class="ground" aria-hidden="true">
      <li v-for="(sign, key) in shown" :key="key">
        <svg viewBox="0 0 40 30"><path :d="sign" /></svg>
      </li>
    </ol>
    <form class="form" novalidate @submit.prevent="enter">
      <h1>Lumvek</h1>
      <p class="quiet">Inspect, judge, and know what to order.</p>
      <label for="username">Name</label>
      <InputText id="username" v-model="username" autocomplete="username" autocapitalize="none" v-focus required />
      <label for="password">Password</label>
      <InputText
        id="password"
        v-model="password"
        type="password"
        autocomplete="current-password"
        required
        :aria-describedby="problem ? 'problem' : undefined"
        :invalid="!!problem"
      />
      <p v-if="problem" id="problem" class="problem" role="alert">{{ problem }}</p>
      <Button type="submit" label="Log in" :disabled="busy || !username || !password" />
    </form>
  </div>
</template>

<style scoped>
.gate {
  min-height: 100vh;
  display: grid;
  align-content: center;
  justify-items: center;
  gap: 8px;
  padding: 24px;
}
.ground {
  display: flex;
  width: min(560px, 100%);
  border-bottom: 6px solid var(--ink);
  padding-bottom: 4px;
  margin-bottom: 28px;
  position: relative;
}
.ground::after {
  content: '';
  position: absolute;
  right: -12px;
  bottom: -12px;
  border: 9px solid transparent;
  border-left: 13px solid var(--ink);
  border-right: 0;
}
.ground li {
  flex: 1;
}
.ground svg {
  display: block;
  width: 100%;
  max-width: 56px;
}
.ground path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.ground li:nth-child(3) path {
  stroke: var(--accent);
}
.form {
  width: min(360px, 100%);
  display: grid;
  gap: 6px;
}
.form h1 {
  font-size: 2.2rem;
  color: var(--accent);
}
label {
  font-weight: 600;
  margin-top: 10px;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
.form :deep(.p-button) {
  margin-top: 16px;
  min-height: 48px;
}
</style>
