<script setup lang="ts">
/** A severity as a drawn shape; the word comes along for those who cannot see it unless it stands beside the mark. */
import { WORDS, type Severity } from './severity'

withDefaults(defineProps<{ severity: Severity; size?: number; wordless?: boolean }>(), { size: 16, wordless: false })
</script>

<template>
  <svg
    class="mark"
    :class="`sev-${severity}`"
    viewBox="0 0 16 16"
    :width="size"
    :height="size"
    :role="wordless ? undefined : 'img'"
    :aria-hidden="wordless ? 'true' : undefined"
    :aria-label="wordless ? undefined : WORDS[severity]"
  >
    <circle v-if="severity === 'sound'" cx="8" cy="8" r="5.6" fill="none" stroke="currentColor" stroke-width="1.9" />
    <template v-else-if="severity === 'watch'">
      <circle cx="8" cy="8" r="6" fill="none" stroke="currentColor" stroke-width="1.9" />
      <path d="M8 2a6 6 0 0 0 0 12z" fill="currentColor" />
    </template>
    <path v-else-if="severity === 'due'" d="M8 .6 15.4 8 8 15.4.6 8z" fill="currentColor" />
    <template v-else-if="severity === 'stop'">
      <circle cx="8" cy="8" r="7.6" fill="currentColor" />
      <path d="M3.4 12.6 12.6 3.4" stroke="var(--surface)" stroke-width="2.8" />
    </template>
    <circle
      v-else-if="severity === 'not-seen'"
      cx="8"
      cy="8"
      r="5.8"
      fill="none"
      stroke="currentColor"
      stroke-width="1.7"
      stroke-dasharray="2.3 2.3"
    />
    <path
      v-else-if="severity === 'does-not-apply'"
      d="M3 8h10"
      fill="none"
      stroke="currentColor"
      stroke-width="2"
      stroke-linecap="round"
    />
    <path
      v-else-if="severity === 'asked'"
      d="M8 1.2 14.8 8 8 14.8 1.2 8zM6.2 6.4a1.9 1.9 0 1 1 2.6 1.8c-.5.2-.8.5-.8 1.1M8 11.2v.4"
      fill="none"
      stroke="currentColor"
      stroke-width="1.5"
    />
    <circle v-else cx="8" cy="8" r="1.6" fill="currentColor" />
  </svg>
</template>

<style scoped>
.mark {
  flex: none;
  vertical-align: -0.14em;
}
</style>
