<script setup lang="ts">
/** How many questions wait, and where the next one is. It never moves the hand by itself. */
import { computed } from 'vue'
import { counted } from '@/app/counted'
import SeverityMark from '@/design/SeverityMark.vue'
import type { Entry } from './entry'

const props = defineProps<{ entry: Entry }>()
const all = computed(() => props.entry.questions.all.value)
const SHOWN = 3
const names = computed(
  () =>
    all.value
      .slice(0, SHOWN)
      .map((one) => one.label)
      .join(', ') + (all.value.length > SHOWN ? ' …' : ''),
)
</script>

<template>
  <p class="questions" role="status">
    <button v-if="all.length" type="button" tabindex="-1" :title="names" @mousedown.prevent @click="entry.visitQuestion()">
      <SeverityMark severity="asked" wordless :size="18" /> <b>{{ counted(all.length, 'question') }}</b>
      <kbd class="by-key">F2</kbd> <span class="names">{{ names }}</span>
    </button>
  </p>
</template>

<style scoped>
.questions {
  flex: 1 1 160px;
  min-width: 0;
  display: flex;
  justify-content: center;
}
.questions:empty {
  flex: none;
}
button {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  max-width: 100%;
  min-height: var(--target);
  padding: 2px 12px;
  border: 2px solid var(--accent);
  border-radius: var(--radius);
  background: var(--surface);
  text-align: left;
  cursor: pointer;
  white-space: nowrap;
  overflow: hidden;
}
.names {
  overflow: hidden;
  text-overflow: ellipsis;
  min-width: 0;
}
@media (max-width: 700px) {
  .questions:not(:empty) {
    flex: 1 1 100%;
  }
  button {
    width: 100%;
  }
  .by-key {
    display: none;
  }
}
</style>
