<script setup lang="ts">
/** What was found in earlier walk-arounds of a machine and not looked at again: it still stands, and is decided where it was found. */
import type { Schemas } from '@/api/client'
import { counted } from './counted'
import { date, phaseName } from './words'

defineProps<{ before: Schemas['BeforeOut'][]; to: 'findings' | 'parts' }>()
</script>

<template>
  <ul v-if="before.length" class="before" aria-label="Still standing from earlier walk-arounds">
    <li v-for="one in before" :key="one.walk_around.id">
      <b>{{ counted(one.findings, 'finding') }}</b> from before still {{ one.findings === 1 ? 'stands' : 'stand'
      }}<template v-if="one.stops"
        >, <b class="sev-stop">{{ counted(one.stops, 'stop') }}</b> among them</template
      >:
      <RouterLink :to="{ name: to, params: { id: one.walk_around.id } }"
        >{{ phaseName(one.walk_around.phase) }} walk-around, {{ date(one.walk_around.started_at) }}</RouterLink
      >
    </li>
  </ul>
</template>

<style scoped>
.before {
  margin: 0;
  padding: 8px 14px;
  list-style: none;
  border-left: 4px solid var(--due);
  background: var(--surface);
}
a {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  font-weight: 600;
}
</style>
