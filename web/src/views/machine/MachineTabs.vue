<script setup lang="ts">
/** The ways through one machine: look at it, see how it wears, read what happened to it. */
defineProps<{ id: string }>()
const WAYS = [
  { name: 'machine', label: 'Walk-around' },
  { name: 'set-up', label: 'Set-up' },
  { name: 'wear', label: 'Wear' },
  { name: 'logbook', label: 'Logbook' },
]
</script>

<template>
  <nav class="tabs" aria-label="This machine">
    <RouterLink v-for="way in WAYS" :key="way.name" :to="{ name: way.name, params: { id } }">{{ way.label }}</RouterLink>
  </nav>
</template>

<style scoped>
.tabs {
  display: flex;
  gap: 2px;
  padding: 6px 20px 0;
  border-bottom: 1px solid var(--line);
  overflow-x: auto;
}
.tabs a {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  padding: 0 14px;
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
  white-space: nowrap;
}
.tabs a.router-link-exact-active {
  color: var(--accent);
  box-shadow: inset 0 -3px 0 var(--accent);
}
@media (max-width: 700px) {
  .tabs {
    padding: 4px 12px 0;
  }
}
</style>
