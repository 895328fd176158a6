<script setup lang="ts">
/** Which walk-around this is, the ways through it, and whether everything typed has reached the server. */
import Button from 'primevue/button'
import { computed, onBeforeUnmount, ref } from 'vue'
import { outbox } from '@/api/outbox'
import type { Schemas } from '@/api/client'
import { date, PHASES } from './words'

const props = defineProps<{ id: string; machine: Schemas['MachineOut']; walkAround: Schemas['WalkAroundBrief']; headers?: string[] }>()

const now = ref(Date.now())
const clock = setInterval(() => (now.value = Date.now()), 500)
onBeforeUnmount(() => clearInterval(clock))

const waiting = computed(() => outbox.of(props.id).length)
const sync = computed(() => {
  const readings = `${waiting.value} ${waiting.value === 1 ? 'reading' : 'readings'}`
  if (outbox.box.state === 'signed-out' && waiting.value) return { kind: 'away', text: `Logged out: ${readings} kept on this device until you log in again` }
  if (outbox.box.state === 'away' && waiting.value) {
    const seconds = Math.max(1, Math.ceil((outbox.box.retryAt - now.value) / 1000))
    return { kind: 'away', text: `No answer from the server. ${readings} kept on this device, next try in ${seconds} s` }
  }
  if (waiting.value) return { kind: 'busy', text: `Sending ${readings}` }
  return { kind: 'done', text: 'All readings saved' }
})
</script>

<template>
  <header class="head">
    <div class="what">
      <h1>{{ [machine.name, ...(headers ?? [])].join(' + ') }}</h1>
      <p class="quiet">{{ PHASES[walkAround.phase] ?? walkAround.phase }} walk-around, begun {{ date(walkAround.started_at) }}{{ walkAround.finished_at ? ', finished ' + date(walkAround.finished_at) : '' }}</p>
    </div>
    <p class="sync" :class="sync.kind" role="status">
      <svg viewBox="0 0 16 16" width="16" height="16" aria-hidden="true">
        <path v-if="sync.kind === 'done'" d="m2.5 8.5 3.6 3.6 7.4-8" /><path v-else-if="sync.kind === 'busy'" d="M8 13V3M4 7l4-4 4 4" /><path v-else d="M2 14 14 2M3 6.5a8 8 0 0 1 6-1.6M12 6a8 8 0 0 1 1.4 1M6 11a3 3 0 0 1 4 0" />
      </svg>
      {{ sync.text }}
      <Button v-if="sync.kind === 'away' && outbox.box.state === 'away'" size="small" severity="secondary" label="Try now" @click="outbox.flush()" />
      <RouterLink v-else-if="sync.kind === 'away'" :to="{ name: 'sign-in', query: { next: $route.fullPath } }">Log in</RouterLink>
    </p>
    <nav class="tabs" aria-label="This walk-around">
      <RouterLink :to="{ name: 'walk-around', params: { id } }">Walk-around</RouterLink>
      <RouterLink :to="{ name: 'row-map', params: { id } }">{{ machine.rows ? 'Row map' : 'Side by side' }}</RouterLink>
      <RouterLink :to="{ name: 'findings', params: { id } }">Findings</RouterLink>
      <RouterLink :to="{ name: 'parts', params: { id } }">Parts</RouterLink>
      <RouterLink :to="{ name: 'summary', params: { id } }">Summary</RouterLink>
      <a :href="`/walk-arounds/${id}/report`">Report</a>
    </nav>
  </header>
</template>

<style scoped>
.head { display: flex; align-items: center; gap: 6px 24px; padding: 6px 20px 0; flex-wrap: wrap; }
.what { display: flex; align-items: baseline; gap: 12px; flex: 1 1 auto; min-width: 0; flex-wrap: wrap; }
.sync { display: inline-flex; align-items: center; gap: 6px; color: var(--quiet); }
.sync svg { fill: none; stroke: currentColor; stroke-width: 2; flex: none; }
.sync.away { color: var(--stop); font-weight: 600; background: var(--surface); border: 2px solid var(--stop); border-radius: var(--radius); padding: 2px 10px; }
.tabs { display: flex; gap: 2px; }
.tabs a { display: inline-flex; align-items: center; min-height: var(--target); padding: 0 14px; border-radius: var(--radius); color: var(--ink); text-decoration: none; font-weight: 600; }
.tabs a:hover { background: var(--sunk); }
.tabs a.router-link-exact-active { color: var(--accent); box-shadow: inset 0 -3px 0 var(--accent); border-radius: 0; }
@media (max-width: 700px) {
  .head { padding: 6px 12px 0; gap: 2px 12px; }
  .what p { display: none; }
  .tabs { width: 100%; overflow-x: auto; }
  .tabs a { padding: 0 8px; flex: none; }
}
</style>
