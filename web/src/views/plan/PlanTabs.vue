<script setup lang="ts">
/** The ways through the season's work. */
import PageTabs from '@/app/PageTabs.vue'
import { useSession } from '@/app/session'

const session = useSession()
const WAYS = [
  { to: { name: 'plan' }, name: 'Work plan' },
  ...(session.may('work by the plan') ? [{ to: { name: 'my-day' }, name: 'My day' }] : []),
  { to: { name: 'hands' }, name: 'Hands and weather' },
]
</script>

<template>
  <PageTabs label="The season’s work" :ways="WAYS" exact />
</template>
