<script setup lang="ts">
/** The ways through parts and orders. An owner has one: what it costs. */
import { useSession } from '@/app/session'
import './supply.css'

const session = useSession()
const WAYS = [
  { name: 'needed', label: 'Parts list' },
  { name: 'sourcing', label: 'Sourcing' },
  { name: 'orders', label: 'Orders' },
  { name: 'fitting', label: 'Fit' },
  { name: 'stock', label: 'Stock' },
  { name: 'parts-book', label: 'Parts book' },
  { name: 'suppliers', label: 'Suppliers and rates' },
  { name: 'costs', label: 'Cost' },
]
</script>

<template>
  <nav v-if="session.me?.role !== 'owner'" class="tabs" aria-label="Parts and orders">
    <RouterLink v-for="way in WAYS" :key="way.name" :to="{ name: way.name }">{{ way.label }}</RouterLink>
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
.tabs a.router-link-active {
  color: var(--accent);
  box-shadow: inset 0 -3px 0 var(--accent);
}
@media (max-width: 700px) {
  .tabs {
    padding: 4px 12px 0;
  }
  .tabs a {
    padding: 0 10px;
  }
}
</style>
