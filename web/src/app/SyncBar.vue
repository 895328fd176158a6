<script setup lang="ts">
/** On every screen: whether what was typed has reached the server, and what nobody has dealt with yet. */
import Button from '@/design/controls/button'
import { computed, onBeforeUnmount, ref } from 'vue'
import { useRoute } from 'vue-router'
import { connection, look } from '@/api/connection'
import { SESSION, shown } from '@/api/kept'
import { placeInLine } from '@/api/inTurn'
import { isReading, outbox, walkAroundOf } from '@/api/outbox'
import { storageAlarm } from '@/api/storage'
import { counted, listed } from './counted'
import { moment } from './words'

/**
 * trouble: what was pressed at the head of the screen and did not come to pass. missed: a screen that could not be fetched. unsaved: fields
 * whose text would be lost by what was pressed.
 */
const props = defineProps<{ trouble?: string; missed?: string; unsaved?: string[] }>()
const emit = defineEmits<{ seen: []; back: []; goOn: []; again: [] }>()
const route = useRoute()
/** In its own walk-around a refused reading stands at its place, counted among the questions there. */
const refused = computed(() =>
  outbox.refused.value.filter(
    (entry) => !(route.name === 'walk-around' && isReading(entry) && walkAroundOf(entry) === route.params.id),
  ),
)
const now = ref(Date.now())
const clock = setInterval(() => (now.value = Date.now()), 500)
onBeforeUnmount(() => clearInterval(clock))

const MOST = 2
const typed = computed(() => {
  const names = (props.unsaved ?? []).map((name) => `“${name}”`)
  const more = names.length - MOST
  return more > 1 ? listed([...names.slice(0, MOST), `${more} more`]) : listed(names)
})
const waiting = computed(() => outbox.waiting.value.length)
const kept = computed(() => `${counted(waiting.value, 'entry', 'entries')} kept on this device`)
const state = computed(() => {
  // Whoever logs out knows it; a login that has ended by itself is said.
  if (outbox.box.state === 'signed-out' && outbox.box.member)
    return { kind: 'away', text: waiting.value ? `Logged out: ${kept.value} until you log in again.` : 'Logged out.' }
  if (outbox.box.state === 'away' && waiting.value) {
    const seconds = Math.max(1, Math.ceil((outbox.box.retryAt - now.value) / 1000))
    return { kind: 'away', text: `No answer from the server. ${kept.value}, next try in ${seconds} s.` }
  }
  return null
})
/** Nothing waits, so nothing has said it yet. */
const outOfReach = computed(() => connection.lost && !state.value && !!outbox.box.member)
/** Since when what stands on this screen may have changed, where it could not be read anew. */
const asItWas = computed(() => {
  const since = [...shown].filter(([address]) => address !== SESSION).map(([, at]) => at)
  return since.length ? `Shown as it was on ${moment(since.sort()[0]!)}.` : ''
})
const others = computed(() => {
  const names = [...new Set(outbox.others.value.map((entry) => entry.name || 'an earlier version'))]
  return names.length
    ? `${counted(outbox.others.value.length, `entry of ${listed(names)} waits`, `entries of ${listed(names)} wait`)} on this device.`
    : ''
})
</script>

<template>
  <div class="lines">
    <p v-if="storageAlarm.full" class="line alarm" role="alert">
      This device has no room left. What is typed now stays in its field and is not kept: free some room, or wait until what
      waits is sent.
    </p>
    <p v-if="missed" class="line alarm" role="alert">
      That screen could not be fetched: the server does not answer. <a :href="missed">Try again</a>
    </p>
    <p v-if="trouble" class="line alarm" role="alert">
      {{ trouble }} <Button size="small" severity="secondary" label="Understood" @click="emit('seen')" />
    </p>
    <p v-if="unsaved?.length" class="line alarm" role="alert">
      What is typed at {{ typed }} is not saved. <Button v-focus size="small" label="Back to it" @click="emit('back')" /><Button
        size="small"
        severity="secondary"
        label="Leave it unsaved"
        @click="emit('goOn')"
      />
    </p>
    <p v-if="state" class="line beside alarm" role="status">
      <svg viewBox="0 0 16 16" width="16" height="16" aria-hidden="true">
        <path d="M2 14 14 2M3 6.5a8 8 0 0 1 6-1.6M12 6a8 8 0 0 1 1.4 1M6 11a3 3 0 0 1 4 0" />
      </svg>
      <span
        >{{ state.text }} <span class="was">{{ asItWas }}</span></span
      >
      <Button v-if="outbox.box.state === 'away'" size="small" severity="secondary" label="Try now" @click="outbox.flush()" />
      <RouterLink v-else :to="{ name: 'sign-in', query: { next: $route.fullPath } }">Log in</RouterLink>
    </p>
    <p v-if="placeInLine" class="line" role="status">
      Others come first: number {{ placeInLine }} in line. It goes on by itself.
    </p>
    <p v-if="outOfReach" class="line beside" role="status">
      <span>Out of reach. Readings are kept here. {{ asItWas }}</span>
      <Button size="small" severity="secondary" label="Try now" @click="look" />
    </p>
    <p v-else-if="asItWas && !state" class="line beside" role="status">
      <span>{{ asItWas }}</span>
      <Button size="small" severity="secondary" label="Read it again" @click="emit('again')" />
    </p>
    <p v-if="refused.length && route.name !== 'waiting'" class="line alarm" role="alert">
      <b>{{ counted(refused.length, 'entry', 'entries') }} could not be taken:</b>
      <RouterLink :to="{ name: 'waiting' }">look</RouterLink>
    </p>
    <p v-if="others && route.name !== 'waiting'" class="line" role="status">
      {{ others }} <RouterLink :to="{ name: 'waiting' }">Look</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.lines:empty {
  display: none;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: center;
  padding: 2px 20px;
  min-height: 36px;
  border-bottom: 1px solid var(--line);
  background: var(--surface);
}
.alarm {
  color: var(--stop);
  font-weight: 600;
  border-bottom: 2px solid var(--stop);
}
.was {
  color: var(--ink);
  font-weight: 400;
}
.line a {
  display: inline-flex;
  align-items: center;
  min-height: 36px;
  padding: 0 6px;
  color: inherit;
  font-weight: 600;
}
svg {
  fill: none;
  stroke: currentColor;
  stroke-width: 2;
  flex: none;
}
@media (max-width: 700px) {
  .line {
    padding: 2px 12px;
    line-height: 1.2;
  }
  /* One button, so it needs no line of its own. */
  .beside {
    flex-wrap: nowrap;
    justify-content: space-between;
  }
  .beside :deep(.p-button) {
    flex: none;
  }
  .line :is(a, :deep(.p-button)) {
    min-height: var(--target);
  }
}
</style>
