<script setup lang="ts">
/** Which walk-around this is, and the ways through it. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useRoute } from 'vue-router'
import { useTitle } from './title'
import { date, phaseName } from './words'

const props = defineProps<{
  id: string
  machine: Schemas['MachineOut']
  walkAround: Schemas['WalkAroundBrief']
  headers?: string[]
  place?: string
  /** On a phone: whether the ways through it are out of the way. */
  closed?: boolean
}>()
const route = useRoute()
const name = computed(() => [props.machine.name, ...(props.headers ?? [])].join(' + '))
/** "Dunmere 12, opener discs" */
useTitle(() => [props.machine.name, (props.place ?? String(route.meta.title ?? '')).toLowerCase()].filter(Boolean).join(', '))
</script>

<template>
  <header class="head" :class="{ closed }">
    <div class="what">
      <h1 :title="name">{{ name }}</h1>
      <p class="quiet">
        {{ phaseName(walkAround.phase) }} walk-around, begun {{ date(walkAround.started_at)
        }}{{ walkAround.finished_at ? ', finished ' + date(walkAround.finished_at) : ''
        }}{{ walkAround.version > 1 ? `, version ${walkAround.version}` : '' }}{{ walkAround.discarded ? ', discarded' : '' }}
      </p>
    </div>
    <slot />
    <nav class="tabs" aria-label="This walk-around">
      <RouterLink v-if="walkAround.phase === 'fault'" :to="{ name: 'faults', params: { id: machine.id } }"
        >The fault</RouterLink
      >
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
/* One line, however long the names are: what does not fit ends in dots. */
.head {
  display: flex;
  align-items: center;
  gap: 6px 24px;
  padding: 6px 20px 0;
}
.what {
  display: flex;
  align-items: baseline;
  gap: 2px 12px;
  flex: 3 1 0;
  min-width: 120px;
}
.what > * {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.what h1 {
  flex: 0 1 auto;
}
.what p {
  flex: 1 1 0;
  min-width: 0;
}
.tabs {
  display: flex;
  gap: 2px;
  flex: none;
}
.tabs a {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  padding: 0 14px;
  border-radius: var(--radius);
  color: var(--ink);
  text-decoration: none;
  font-weight: 600;
}
.tabs a:hover {
  background: var(--sunk);
}
.tabs a.router-link-exact-active {
  color: var(--accent);
  box-shadow: inset 0 -3px 0 var(--accent);
  border-radius: 0;
}
@media (max-width: 1000px) {
  .head {
    flex-wrap: wrap;
  }
  .tabs {
    flex: 1 1 100%;
    overflow-x: auto;
  }
}
@media (max-width: 700px) {
  .head {
    padding: 6px 12px 0;
    gap: 2px 12px;
  }
  .what p,
  .closed .tabs {
    display: none;
  }
  .tabs {
    width: 100%;
    overflow-x: auto;
  }
  .tabs a {
    padding: 0 8px;
    flex: none;
  }
}
</style>
