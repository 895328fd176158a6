<script setup lang="ts">
/** One search over all that the shop has and every screen: `/` opens it, arrows choose, Enter goes there, Esc leaves. */
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import { useAttempt } from './useAttempt'
import { screensCalled } from './screens'
import { useSession } from './session'

type Found = Pick<Schemas['FoundOut'], 'title' | 'words' | 'path'> & { kind: Schemas['FoundOut']['kind'] | 'screen' }
const KINDS: Record<Found['kind'], string> = {
  screen: 'Screen',
  machine: 'Machine',
  finding: 'Finding',
  note: 'Note',
  part: 'Part',
  supplier: 'Supplier',
  symptom: 'Symptom',
  fault: 'Fault',
  person: 'Person',
  check: 'Check',
}
const session = useSession()
const route = useRoute()
const router = useRouter()
const open = ref(false)
const text = ref('')
const there = ref<Schemas['FoundOut'][]>([])
const at = ref(0)
const field = ref<HTMLInputElement | null>(null)
const asking = useAttempt('The search could not be made.')
let before: HTMLElement | null = null

const found = computed<Found[]>(() => [
  ...screensCalled(text.value, session.may).map((one) => ({ ...one, kind: 'screen' as const, words: '' })),
  ...there.value,
])
let waits = 0
watch(text, (words) => {
  at.value = 0
  window.clearTimeout(waits)
  if (words.trim().length < 2) return void (there.value = [])
  waits = window.setTimeout(
    () =>
      void asking.read(async () => {
        const q = text.value
        const answered = await answer(api.GET('/api/search', { params: { query: { q } } }))
        if (q === text.value) there.value = answered
      }),
    150,
  )
})
watch(() => route.fullPath, close)

async function show(): Promise<void> {
  before = document.activeElement as HTMLElement | null
  open.value = true
  await nextTick()
  field.value?.select()
}
function close(): void {
  if (!open.value) return
  open.value = false
  if (before?.isConnected) before.focus()
}
function go(one: Found | undefined): void {
  if (!one) return
  open.value = false
  void router.push(one.path)
}
function key(event: KeyboardEvent): void {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (step) at.value = Math.max(0, Math.min(found.value.length - 1, at.value + step))
  else if (event.key === 'Enter') go(found.value[at.value])
  else if (event.key === 'Escape') close()
  else return
  event.preventDefault()
}
/** In a walk-around the key means something else; in a field it is a letter. */
function slash(event: KeyboardEvent): void {
  const on = event.target as HTMLElement
  if (event.key !== '/' || event.ctrlKey || event.altKey || event.metaKey || route.name === 'walk-around') return
  if (on.matches('input, textarea, select, [contenteditable]')) return
  event.preventDefault()
  void show()
}
onMounted(() => window.addEventListener('keydown', slash))
onBeforeUnmount(() => window.removeEventListener('keydown', slash))
</script>

<template>
  <button type="button" class="find" aria-label="Find anything" title="Find anything ( / )" @click="show">
    <svg viewBox="0 0 24 24" width="22" height="22" aria-hidden="true">
      <circle cx="10" cy="10" r="6.5" />
      <path d="m15 15 6 6" />
    </svg>
  </button>
  <div v-if="open" class="over" @mousedown.self="close">
    <div class="box" role="search">
      <input
        ref="field"
        v-model="text"
        type="search"
        maxlength="120"
        placeholder="Machine, serial, part, note, check, person, screen"
        role="combobox"
        aria-label="Find anything"
        aria-controls="found"
        :aria-expanded="found.length > 0"
        :aria-activedescendant="found.length ? `found-${at}` : undefined"
        autocomplete="off"
        spellcheck="false"
        @keydown="key"
      />
      <ul v-show="found.length" id="found" role="listbox" aria-label="Found">
        <li
          v-for="(one, i) in found"
          :id="`found-${i}`"
          :key="`${one.kind}${one.path}${one.title}`"
          role="option"
          :aria-selected="i === at"
          @mousemove="at = i"
          @click="go(one)"
        >
          <span class="kind">{{ KINDS[one.kind] }}</span>
          <span class="what"
            ><b>{{ one.title }}</b> <span class="quiet">{{ one.words }}</span></span
          >
        </li>
      </ul>
      <p v-if="asking.problem" class="problem" role="alert">{{ asking.problem }}</p>
      <p v-else-if="text.trim().length > 1 && !found.length && !asking.reading" class="quiet" role="status">
        Nothing is called that.
      </p>
    </div>
  </div>
</template>

<style scoped>
.find {
  display: inline-grid;
  place-items: center;
  min-width: var(--target);
  min-height: var(--target);
  border: 0;
  border-radius: var(--radius);
  background: none;
  cursor: pointer;
}
.find:hover {
  background: var(--sunk);
}
svg {
  fill: none;
  stroke: currentcolor;
  stroke-width: 2.2;
  stroke-linecap: round;
}
.over {
  position: fixed;
  inset: 0;
  z-index: 8;
  background: rgb(0 0 0 / 35%);
}
.box {
  display: grid;
  gap: 8px;
  width: min(640px, calc(100vw - 20px));
  max-height: 84vh;
  margin: 60px auto 0;
  padding: 12px;
  border-radius: var(--radius);
  background: var(--surface);
  box-shadow: 0 10px 40px rgb(0 0 0 / 30%);
}
input {
  min-height: 52px;
  padding: 0 14px;
  font: inherit;
  font-size: 1.15rem;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--quiet);
  border-radius: 6px;
}
ul {
  overflow-y: auto;
}
li {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 8px;
  align-items: center;
  min-height: var(--target);
  padding: 4px 10px;
  border-radius: 6px;
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--accent-soft);
}
.kind {
  color: var(--quiet);
}
.what {
  min-width: 0;
  overflow-wrap: anywhere;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
</style>
