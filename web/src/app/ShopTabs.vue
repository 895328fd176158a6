<script setup lang="ts">
/** The ways through what is the shop's own. */
import { computed } from 'vue'
import PageTabs from './PageTabs.vue'
import { useSession, type Right } from './session'

const session = useSession()
const WAYS: { to: { name: string }; name: string; right?: Right }[] = [
  { to: { name: 'shop' }, name: 'The shop', right: 'change the shop' },
  { to: { name: 'people' }, name: 'People', right: 'see people' },
  { to: { name: 'rules' }, name: 'Rules' },
  { to: { name: 'own-checks' }, name: 'Own checks', right: 'change checks' },
  { to: { name: 'changes' }, name: 'Changes', right: 'see changes' },
]
const mine = computed(() => WAYS.filter((way) => !way.right || session.may(way.right)))
</script>

<template>
  <PageTabs v-if="mine.length > 1" label="The shop" :ways="mine" />
</template>
