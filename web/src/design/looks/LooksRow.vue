<script setup lang="ts">
/** The states of a thing side by side, each with its word and what fingers and ears tell of it. */
import StateLook from './StateLook.vue'

defineProps<{ looks: { motif: string; state: string; name: string; words?: string }[]; label: string }>()
</script>

<template>
  <ul class="looks" :aria-label="label">
    <li v-for="one in looks" :key="one.state">
      <StateLook :motif="one.motif" :state="one.state" />
      <span
        >{{ one.name }}<small v-if="one.words" class="quiet">{{ one.words }}</small></span
      >
    </li>
  </ul>
</template>

<style scoped>
.looks {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
}
.looks li {
  display: flex;
  align-items: center;
  gap: 8px;
  min-width: 0;
}
small {
  display: block;
}
</style>
