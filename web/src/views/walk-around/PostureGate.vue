<script setup lang="ts">
/** Before hands go in: what the machine must stand in, the locks, and the cautions. Confirmed once, and written down. */
import Button from 'primevue/button'
import { onMounted, ref } from 'vue'
import type { Schemas, Visit } from '@/api/client'

defineProps<{ posture: Schemas['PostureOut']; visit?: Visit & { index: number }; visits: number; places: number; hazards: string[] }>()
const emit = defineEmits<{ confirm: []; look: [] }>()
const go = ref<{ $el: HTMLElement } | null>(null)
const focus = (): void => go.value?.$el.focus({ preventScroll: true })
onMounted(focus)
defineExpose({ focus })
const upper = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
</script>

<template>
  <section class="gate" :aria-label="`Bring the machine into posture: ${posture.name}`">
    <p class="step">Posture {{ (visit?.index ?? 0) + 1 }} of {{ visits }}<template v-if="visit?.minutes">, about {{ Math.round(visit.minutes) }} min to move{{ visit.via.length ? ', by way of ' + visit.via.join(', ') : '' }}</template></p>
    <h2>{{ upper(posture.name) }}</h2>
    <p v-if="posture.lock" class="lock"><svg viewBox="0 0 24 24" width="30" height="30" aria-hidden="true"><path d="M4 12h16v9H4zM8 12V8a4 4 0 0 1 8 0v4" /></svg>{{ posture.lock }}.</p>
    <ul>
      <li v-for="caution in posture.cautions" :key="caution">{{ caution }}</li>
      <li v-for="hazard in hazards" :key="hazard">{{ hazard }}</li>
    </ul>
    <p class="do">
      <Button ref="go" class="main" :label="posture.lock ? 'Locks are set, go on' : 'Understood, go on'" @click="emit('confirm')" @keydown.esc="emit('look')" />
      <Button severity="secondary" text label="Only look or correct" @click="emit('look')" />
    </p>
    <p class="quiet">{{ places }} {{ places === 1 ? 'place' : 'places' }} open in this posture. What you confirm is kept with your name and the time. The operator’s manual and local rules come first.</p>
  </section>
</template>

<style scoped>
.gate { display: grid; gap: 10px; padding: 20px 26px; background: var(--surface); border: 2px solid var(--accent); border-radius: var(--radius); }
.step { color: var(--quiet); }
h2 { font-size: 2rem; line-height: 1.1; }
.lock { display: flex; gap: 12px; align-items: center; font-size: 1.35rem; font-weight: 600; line-height: 1.25; }
.lock svg { fill: none; stroke: var(--stop); stroke-width: 2.4; stroke-linejoin: round; flex: none; }
ul { display: grid; gap: 4px; padding-left: 1.1em; list-style: disc; font-size: 1.1rem; }
.do { display: flex; flex-wrap: wrap; gap: 10px; margin-top: 6px; }
.main { min-height: 56px; font-size: 1.2rem; padding: 0 26px; }
.do :deep(.p-button) { min-height: var(--target); }
@media (max-width: 700px) { .gate { padding: 14px; } h2 { font-size: 1.5rem; } .lock { font-size: 1.15rem; } }
</style>
