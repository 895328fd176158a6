<script setup lang="ts">
/** How late the best plan found so far is, and what none is under: the two lines meet where it is the best there is. */
import { computed } from 'vue'
import Button from '@/design/controls/button'
import { span } from '@/app/duration'

const props = defineProps<{ told: { found: number; bound: number }[] }>()
defineEmits<{ enough: [] }>()
const WIDTH = 320
const HEIGHT = 48
const now = computed(() => props.told.at(-1))
const most = computed(() => Math.max(1, ...props.told.map((one) => one.found)))
const line = (of: 'found' | 'bound'): string =>
  props.told
    .map((one, i) => `${(WIDTH * i) / Math.max(1, props.told.length - 1)},${4 + (HEIGHT - 8) * (1 - one[of] / most.value)}`)
    .join(' ')
</script>

<template>
  <div class="solving" role="status">
    <svg v-if="told.length > 1" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" aria-hidden="true">
      <polyline :points="line('found')" class="found" />
      <polyline :points="line('bound')" class="bound" />
    </svg>
    <p class="grow">
      <template v-if="now"
        ><b>{{ now.found ? `${span(now.found)} late so far` : 'Nothing late so far' }}</b
        >{{
          now.found ? (now.found === now.bound ? ', and no plan is less late' : `, no plan is under ${span(now.bound)}`) : ''
        }}. Now the moves, the postures, the last day.</template
      ><template v-else>Reading what is to be done …</template>
    </p>
    <Button severity="secondary" label="That will do" :disabled="!now" @click="$emit('enough')" />
  </div>
</template>

<style scoped>
.solving {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
}
svg {
  width: 240px;
}
polyline {
  fill: none;
  stroke-width: 2.5;
}
.found {
  stroke: var(--accent);
}
.bound {
  stroke: var(--quiet);
  stroke-dasharray: 5 4;
}
</style>
