<script setup lang="ts">
/** What waited on this device and was not taken, with the reason, on the screen it was typed on. */
import type { Entry } from '@/api/outbox'

defineProps<{ entries: Entry[] }>()
</script>

<template>
  <p v-for="one in entries" :key="one.uuid" class="trouble" role="alert">
    {{ one.about.what }}<template v-if="one.about.shown">, “{{ one.about.shown }}”</template> was not taken:
    {{ one.refused!.message }}
    <RouterLink :to="{ name: 'waiting' }">Try again or discard it</RouterLink>
  </p>
</template>

<style scoped>
a {
  margin-inline-start: 8px;
}
</style>
