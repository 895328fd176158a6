<script setup lang="ts">
/** The last few verdicts that were due or stop, one key back to each. */
import { computed } from 'vue'
import SeverityMark from '@/design/SeverityMark.vue'
import type { Severity } from '@/design/severity'
import type { Entry } from './entry'
import type { WalkAroundState } from './useWalkAround'

const props = defineProps<{ entry: Entry; state: WalkAroundState }>()
const recent = computed(() => props.state.verdicts.recent.value)
</script>

<template>
  <section v-if="recent.length" class="recent" aria-label="Last due and stop">
    <h2>Last due and stop <kbd>F4</kbd></h2>
    <ul>
      <li v-for="one in recent" :key="one.key">
        <button
          type="button"
          tabindex="-1"
          @mousedown.prevent
          @click="entry.hand.visit({ check: one.place.check, position: one.place.position })"
        >
          <SeverityMark :severity="one.place.severity as Severity" :size="15" /> {{ one.label }}
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  display: flex;
  align-items: center;
  gap: 8px;
}
h2 kbd {
  font-size: 0.9rem;
}
button {
  display: flex;
  align-items: baseline;
  gap: 8px;
  width: 100%;
  min-height: var(--target);
  padding: 2px 4px;
  border: 0;
  border-radius: var(--radius);
  background: none;
  text-align: left;
  line-height: 1.2;
  cursor: pointer;
}
button:hover {
  background: var(--sunk);
}
@media (max-width: 1100px) {
  .recent {
    display: flex;
    align-items: center;
    gap: 6px;
    overflow-x: auto;
  }
  h2 {
    font-size: 1rem;
    white-space: nowrap;
  }
  ul {
    display: flex;
  }
  button {
    white-space: nowrap;
  }
}
@media (max-width: 700px) {
  h2 {
    display: none;
  }
}
</style>
