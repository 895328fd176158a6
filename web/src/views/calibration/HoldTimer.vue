<script setup lang="ts">
/** How long a switch is held: counts up, and says when it is about enough. */
import { computed, onBeforeUnmount, ref } from 'vue'
import Button from '@/design/controls/button'

const props = defineProps<{ seconds: number }>()
const held = ref(0)
let ticking = 0
let since = 0
const share = computed(() => Math.min(1, held.value / props.seconds))
function begin(): void {
  since = performance.now()
  window.clearInterval(ticking)
  held.value = 0
  ticking = window.setInterval(() => (held.value = (performance.now() - since) / 1000), 200)
}
function stop(): void {
  window.clearInterval(ticking)
  ticking = 0
}
onBeforeUnmount(stop)
defineExpose({ begin, stop })
</script>

<template>
  <div class="hold">
    <svg viewBox="0 0 64 64" role="img" :aria-label="`held ${Math.floor(held)} of about ${seconds} seconds`">
      <circle cx="32" cy="32" r="26" class="round" />
      <circle
        cx="32"
        cy="32"
        r="26"
        class="held"
        pathLength="100"
        :stroke-dasharray="`${share * 100} 100`"
        transform="rotate(-90 32 32)"
      />
      <text x="32" y="38">{{ Math.floor(held) }} s</text>
    </svg>
    <Button severity="secondary" :label="held ? 'Count again' : 'Count from now'" @click="begin" />
    <span v-if="share >= 1" role="status"><b>About long enough.</b> The machine decides.</span>
    <span v-else class="quiet">about {{ seconds }} s</span>
  </div>
</template>

<style scoped>
.hold {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
}
svg {
  width: 96px;
}
circle {
  fill: none;
  stroke-width: 7;
}
.round {
  stroke: var(--line);
}
.held {
  stroke: var(--accent);
}
text {
  text-anchor: middle;
  font-size: 15px;
  font-weight: 600;
  fill: var(--ink);
}
</style>
