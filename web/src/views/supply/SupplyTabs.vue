<script setup lang="ts">
/** The ways through parts and orders. An owner has one: what it costs. */
import PageTabs from '@/app/PageTabs.vue'
import { useSession } from '@/app/session'

const session = useSession()
const WAYS = [
  { to: { name: 'needed' }, name: 'Parts list' },
  { to: { name: 'sourcing' }, name: 'Sourcing' },
  { to: { name: 'orders' }, name: 'Orders' },
  { to: { name: 'fitting' }, name: 'Fit' },
  { to: { name: 'stock' }, name: 'Stock' },
  { to: { name: 'parts-book' }, name: 'Parts book' },
  { to: { name: 'suppliers' }, name: 'Suppliers and rates' },
  { to: { name: 'costs' }, name: 'Cost' },
]
</script>

<template>
  <PageTabs v-if="!session.onlyOwns" label="Parts and orders" :ways="WAYS" />
</template>
