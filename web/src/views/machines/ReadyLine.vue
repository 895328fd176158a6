<script setup lang="ts">
/** When a machine will be ready, by the plan, against the day it is wanted; what makes it late, and what would cure it. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { counted } from '@/app/counted'
import { date } from '@/app/words'

const props = defineProps<{ season: Schemas['ReadinessOut'] }>()
const between = computed(() => {
  const { ready, first, last } = props.season
  if (!ready) return ''
  return first && last && first !== last ? `between ${date(first)} and ${date(last)}` : date(ready.slice(0, 10))
})
</script>

<template>
  <p v-if="season.jobs_left" class="ready" :class="{ late: season.late_h > 0, unsure: season.may_be_late }">
    <svg viewBox="0 0 20 20" aria-hidden="true">
      <path v-if="season.late_h > 0" d="m10 1 9 9-9 9-9-9z" />
      <path v-else-if="season.may_be_late" d="m10 2 8 8-8 8-8-8z" class="open" />
      <path v-else d="m3 11 5 5 9-11" class="tick" />
    </svg>
    <span
      ><template v-if="season.words"
        ><b>{{ season.words }}</b></template
      ><template v-else
        >Ready <b>{{ between }}</b>{{ season.may_be_late ? ', which may be too late' : '' }}</template
      >
      <small
        >{{ counted(season.jobs_left, 'job') }}, {{ Math.round(season.hours_left) }} h of work left<template
          v-if="season.parts_out"
          >, {{ counted(season.parts_out, 'part') }} not here yet</template
        ></small
      ></span
    >
  </p>
</template>

<style scoped>
.ready {
  display: flex;
  gap: 8px;
  align-items: flex-start;
}
svg {
  flex: none;
  width: 16px;
  margin-top: 3px;
}
path {
  fill: var(--stop);
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
.late b {
  color: var(--stop);
}
small {
  display: block;
  color: var(--quiet);
  font-size: 0.92rem;
}
</style>
