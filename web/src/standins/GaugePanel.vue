<script setup lang="ts">
/**
 * A simulated gauge with a keyboard plug. It types what the server makes up for it, key by key and with Enter at the end, into
 * whichever field has the focus: what works with it works with a real one.
 */
import { ref } from 'vue'
import { api, Refused, write, type Schemas } from '@/api/client'
import { typeKeys } from './typeKeys'

type Gauge = Schemas['GaugeIn']['gauge']
const props = defineProps<{ walkAround?: string; check?: string; tools?: string[] }>()
const GAUGES: Gauge[] = ['caliper', 'depth gauge', 'tape', 'feeler', 'force gauge']
const problem = ref('')
const seed = ref(Math.floor(Math.random() * 1e6))
/** Where the hand was before it reached for the gauge. */
let field: HTMLInputElement | HTMLTextAreaElement | null = null

function remember(): void {
  const active = document.activeElement
  if (active instanceof HTMLInputElement || active instanceof HTMLTextAreaElement) field = active
}

async function measure(gauge: Gauge): Promise<void> {
  remember()
  if (!field?.isConnected) field = document.querySelector<HTMLInputElement>('input[data-tool]:not([data-tool=""]), #reading')
  if (!field) return void (problem.value = 'Put the cursor into a field first.')
  problem.value = ''
  const target = field
  try {
    const near = props.check ? '' : target.value || target.placeholder
    const found = await write(() =>
      api.POST('/api/stand-ins/gauge', {
        body: { gauge, seed: ++seed.value, near, walk_around: props.walkAround ?? null, check: props.check ?? '' },
      }),
    )
    target.focus()
    if (!props.check) target.select()
    await typeKeys(found.types)
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'The gauge did not answer.'
  }
}
</script>

<template>
  <div class="gauges" role="group" aria-label="Simulated gauge" @pointerdown.capture="remember">
    <span class="quiet">Simulated gauge</span>
    <button v-for="gauge in GAUGES" :key="gauge" type="button" class="gauge" @mousedown.prevent @click="measure(gauge)">
      {{ gauge }}
    </button>
    <span v-if="problem" class="trouble" role="alert">{{ problem }}</span>
  </div>
</template>

<style scoped>
.gauges {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.gauge {
  min-height: var(--target);
  padding: 0 10px;
  border: 1px dashed var(--quiet);
  border-radius: var(--radius);
  background: none;
  cursor: pointer;
}
.gauge:hover {
  border-color: var(--accent);
}
.trouble {
  color: var(--stop);
}
</style>
