<script setup lang="ts">
/** Who is reached outside, how each answered last, and trying the mail. */
import Button from '@/design/controls/button'
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { useAttempt } from '@/app/useAttempt'
import { moment } from '@/app/words'

type Line = Schemas['OutsideLineOut']
const lines = ref<Line[]>([])
const at = useAttempt('How they answer could not be read.')
const tried = ref('')
const LOOK_MS = 1500
let timer = 0

const load = (): Promise<boolean> => at.read(async () => void (lines.value = await answer(api.GET('/api/outside'))))
onMounted(load)
onBeforeUnmount(() => clearTimeout(timer))

const mail = (): Line | undefined => lines.value.find((one) => one.key === 'mail')
/** It is tried beside: what came of it is there when the line was asked after now. */
const tryMail = (): Promise<boolean> =>
  at.run(async () => {
    const before = mail()?.asked_at ?? null
    tried.value = 'On its way …'
    lines.value = await write(() => api.POST('/api/outside/mail/tried'))
    look(before, 20)
  })
function look(before: string | null, left: number): void {
  const line = mail()
  if (line && line.asked_at !== before) {
    tried.value = line.trouble || 'The mail server has taken it. Look whether it comes.'
  } else if (left) {
    timer = window.setTimeout(() => void load().then(() => look(before, left - 1)), LOOK_MS)
  } else tried.value = 'Nothing was heard of it so far.'
}
function said(line: Line): string {
  if (!line.connected) return line.key === 'mail' ? 'Not set: links are given on by hand.' : 'Not connected.'
  if (!line.asked_at) return 'Not asked yet.'
  return line.trouble || 'Answers.'
}
</script>

<template>
  <section class="card">
    <p v-if="at.problem" class="trouble" role="alert">{{ at.problem }}</p>
    <ul>
      <li v-for="line in lines" :key="line.key" :class="{ away: line.trouble }">
        <b>{{ line.name }}</b>
        <span>
          {{ said(line) }}
          <small v-if="line.connected && line.asked_at" class="quiet">{{ moment(line.asked_at) }}</small>
          <small v-if="line.rests">{{ line.rests }} What somebody presses is tried all the same.</small>
        </span>
        <Button
          v-if="line.key === 'mail' && line.connected"
          severity="secondary"
          label="Send a letter to me"
          :disabled="at.busy"
          @click="tryMail"
        />
      </li>
    </ul>
    <p v-if="tried" role="status">
      <b>{{ tried }}</b>
    </p>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 180px minmax(0, 1fr) auto;
  gap: 4px 16px;
  align-items: center;
  min-height: 56px;
}
li + li {
  border-top: 1px solid var(--line);
}
small {
  display: block;
}
.away span {
  color: var(--stop);
}
@media (max-width: 600px) {
  li {
    grid-template-columns: minmax(0, 1fr);
    padding: 8px 0;
  }
}
</style>
