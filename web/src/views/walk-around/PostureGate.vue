<script setup lang="ts">
/**
 * Before hands go in: what the machine must stand in, the locks, and the cautions. Confirmed once, by an act of its own: the key l, or
 * a press that is held. No key that was meant for the field before confirms it, and none in its first moments.
 */
import Button from '@/design/controls/button'
import { onBeforeUnmount, onMounted, ref } from 'vue'
import type { Hold, Schemas, Visit } from '@/api/client'
import { counted } from '@/app/counted'
import { moment, upper } from '@/app/words'

defineProps<{
  posture: Schemas['PostureOut']
  visit?: Visit & { index: number }
  visits: number
  places: number
  hazards: string[]
  /** Who confirmed it last, where nobody can know whether it still holds. */
  doubted?: Hold
}>()
const emit = defineEmits<{ confirm: []; look: [] }>()
const HOLD_MS = 700
const FIRST_MS = 600
const box = ref<HTMLElement | null>(null)
const holding = ref(false)
const missed = ref('')
const hint = ref('')
let shownAt = 0
let keyAt = 0
let timer: ReturnType<typeof setTimeout> | undefined

const focus = (): void => box.value?.focus({ preventScroll: true })
onMounted(() => {
  shownAt = performance.now()
  focus()
})
onBeforeUnmount(() => clearTimeout(timer))
defineExpose({ focus })

/** Too soon after it came up, or in the middle of typing: that key was meant for something else. */
function key(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || event.key === 'Tab' || event.key === 'Shift') return
  const now = performance.now()
  const quiet = now - shownAt > FIRST_MS && now - keyAt > FIRST_MS && !event.repeat
  keyAt = now
  if (event.key === 'Escape') return emit('look')
  if (event.key.toLowerCase() === 'l' && event.key.length === 1) {
    event.preventDefault()
    if (quiet) return emit('confirm')
    hint.value = 'Read it first, then press l by itself.'
  } else if (event.key === 'Enter' || event.key === ' ') {
    // A button that has the focus by Tab keeps its own Enter.
    if (event.target !== box.value && !(event.target as HTMLElement).classList.contains('main')) return
    event.preventDefault()
    hint.value = missed.value
      ? `“${missed.value}” was typed here and taken nowhere: it is still to be typed at its place.`
      : 'Enter confirms nothing here: press l, or hold the button.'
  } else if (event.key.length === 1) missed.value = (missed.value + event.key).slice(-20)
}

function press(event: PointerEvent): void {
  if (event.button !== 0 || performance.now() - shownAt < FIRST_MS) return
  holding.value = true
  clearTimeout(timer)
  timer = setTimeout(() => holding.value && emit('confirm'), HOLD_MS)
}
function release(): void {
  if (holding.value) hint.value = 'Hold it a little longer.'
  holding.value = false
  clearTimeout(timer)
}
</script>

<template>
  <section
    ref="box"
    class="gate"
    tabindex="-1"
    :aria-label="`Bring the machine into posture: ${posture.name}`"
    aria-describedby="gate-lock"
    @keydown="key"
  >
    <p class="step">
      Posture {{ (visit?.index ?? 0) + 1 }} of {{ visits
      }}<template v-if="visit?.minutes"
        >, about {{ Math.round(visit.minutes) }} min to move{{
          visit.via.length ? ', by way of ' + visit.via.join(', ') : ''
        }}</template
      >
    </p>
    <h2>{{ upper(posture.name) }}</h2>
    <p v-if="posture.lock" id="gate-lock" class="lock">
      <svg viewBox="0 0 24 24" width="30" height="30" aria-hidden="true"><path d="M4 12h16v9H4zM8 12V8a4 4 0 0 1 8 0v4" /></svg
      >{{ posture.lock }}.
    </p>
    <p v-if="doubted" class="doubted" role="note">
      {{ doubted.by }} confirmed it on {{ moment(doubted.at) }}. Out of reach you do not hear of it when the machine is moved:
      look again, and confirm it yourself.
    </p>
    <ul>
      <li v-for="caution in posture.cautions" :key="caution">{{ caution }}</li>
      <li v-for="hazard in hazards" :key="hazard">{{ hazard }}</li>
    </ul>
    <div class="do">
      <button
        type="button"
        class="main"
        :class="{ holding }"
        @pointerdown="press"
        @pointerup="release"
        @pointerleave="release"
        @pointercancel="release"
        @contextmenu.prevent
      >
        <span class="fill" aria-hidden="true"></span
        ><span class="text"
          >{{ posture.lock ? 'Locks are set, go on' : 'Understood, go on' }}
          <small
            >hold<span class="by-key">, or <kbd>l</kbd></span></small
          ></span
        >
      </button>
      <Button severity="secondary" text label="Only look or correct" aria-keyshortcuts="Escape" @click="emit('look')" />
    </div>
    <p v-if="hint" class="hint" role="alert">{{ hint }}</p>
    <p class="quiet">
      {{ counted(places, 'place') }} open in this posture. What you confirm is kept with your name and the time. The operator’s
      manual and local rules come first.
    </p>
  </section>
</template>

<style scoped>
.gate {
  display: grid;
  gap: 10px;
  padding: 20px 26px;
  background: var(--surface);
  border: 2px solid var(--accent);
  border-radius: var(--radius);
}
.gate:focus {
  outline: 3px solid var(--accent);
  outline-offset: 2px;
}
.step {
  color: var(--quiet);
}
h2 {
  font-size: 2rem;
  line-height: 1.1;
}
.lock {
  display: flex;
  gap: 12px;
  align-items: center;
  font-size: 1.35rem;
  font-weight: 600;
  line-height: 1.25;
}
.doubted {
  padding-left: 12px;
  border-left: 4px solid var(--accent);
}
.lock svg {
  fill: none;
  stroke: var(--stop);
  stroke-width: 2.4;
  stroke-linejoin: round;
  flex: none;
}
ul {
  display: grid;
  gap: 4px;
  padding-left: 1.1em;
  list-style: disc;
  font-size: 1.1rem;
}
.do {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin-top: 6px;
}
.do :deep(.p-button) {
  min-height: var(--target);
}
.main {
  position: relative;
  overflow: hidden;
  min-height: 56px;
  padding: 0 26px;
  border: 0;
  border-radius: var(--radius);
  background: var(--accent);
  color: var(--on-accent);
  font-size: 1.2rem;
  font-weight: 600;
  cursor: pointer;
  touch-action: none;
  user-select: none;
  -webkit-touch-callout: none;
}
.main .text {
  position: relative;
}
.main small {
  margin-left: 8px;
  font-weight: 400;
}
.fill {
  position: absolute;
  inset: 0;
  transform: scaleX(0);
  transform-origin: left;
  background: color-mix(in srgb, var(--ink) 35%, transparent);
}
.holding .fill {
  transform: scaleX(1);
  transition: transform 700ms linear;
}
.hint {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 700px) {
  .gate {
    padding: 12px 14px;
    gap: 8px;
  }
  h2 {
    font-size: 1.5rem;
  }
  .lock {
    font-size: 1.15rem;
  }
  /* Within the thumb, and never over the lines it confirms. */
  .do {
    position: sticky;
    bottom: 0;
    margin: 0 -14px;
    padding: 8px 14px;
    background: var(--surface);
    border-top: 1px solid var(--line);
  }
  .do {
    flex-wrap: nowrap;
    gap: 4px;
  }
  .main {
    flex: 1 1 auto;
    padding: 0 12px;
    font-size: 1.1rem;
  }
  .do :deep(.p-button) {
    flex: 0 1 92px;
    padding: 0 4px;
    line-height: 1.1;
  }
  .by-key {
    display: none;
  }
}
</style>
