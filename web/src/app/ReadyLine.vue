<script setup lang="ts">
/** Whether a machine is ready, and if not, when it will be and what is in the way: the server's judgement, the same on every screen.
 * brief: without the plan's words, where they stand beside it. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import SeverityMark from '@/design/SeverityMark.vue'
import { counted } from './counted'

const props = defineProps<{ ready: Schemas['ReadinessOut']; brief?: boolean }>()
const late = computed(() => (props.ready.late_days ?? 0) > 0)
const mark = computed(() => {
  const { state, may_be_late } = props.ready
  if (state === 'not_fit') return 'stop'
  if (state === 'ready') return 'tick'
  if (state === 'ready_after') return late.value ? 'due' : may_be_late ? 'unsure' : 'watch'
  return 'not-seen'
})
</script>

<template>
  <div class="ready" :class="[ready.state, { late }]">
    <svg v-if="mark === 'tick' || mark === 'unsure'" viewBox="0 0 20 20" width="16" height="16" aria-hidden="true">
      <path v-if="mark === 'tick'" d="m3 11 5 5 9-11" class="tick" />
      <path v-else d="m10 2 8 8-8 8-8-8z" class="open" />
    </svg>
    <SeverityMark v-else :severity="mark" wordless />
    <div>
      <p>
        <b>{{ ready.said }}</b>{{ ready.may_be_late && !late ? ', which may be too late' : '' }}
      </p>
      <p v-if="ready.because.length" class="why">{{ ready.because.join(', ') }}</p>
      <template v-if="!brief">
        <p v-for="pin in ready.pins" :key="pin" class="why pin">{{ pin }}</p>
        <p v-if="ready.words && !ready.pins.length" class="why">{{ ready.words }}</p>
        <p v-if="ready.hours_left && ready.state === 'ready_after'" class="why">
          {{ counted(Math.max(1, Math.round(ready.hours_left)), 'hour') }} of planned work left
        </p>
      </template>
    </div>
  </div>
</template>

<style scoped>
.ready {
  display: flex;
  gap: 8px;
  align-items: flex-start;
}
.ready > svg {
  flex: none;
  margin-top: 4px;
}
.open {
  fill: none;
  stroke: var(--due);
  stroke-width: 2.5;
}
.tick {
  fill: none;
  stroke: var(--sound);
  stroke-width: 3;
}
.not_fit b,
.late b {
  color: var(--stop);
}
.why {
  color: var(--quiet);
  font-size: 0.92rem;
}
.pin {
  color: var(--ink);
  font-weight: 600;
}
</style>
