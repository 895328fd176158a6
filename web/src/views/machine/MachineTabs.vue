<script setup lang="ts">
/** The ways through one machine: look at it, see how it wears, read what happened to it. */
import PageTabs from '@/app/PageTabs.vue'

const props = defineProps<{ id: string }>()
const WAYS = [
  { to: { name: 'machine', params: { id: props.id } }, name: 'Walk-around' },
  { to: { name: 'set-up', params: { id: props.id } }, name: 'Set-up' },
  { to: { name: 'changeover', params: { id: props.id } }, name: 'Changeover' },
  { to: { name: 'calibrations', params: { id: props.id } }, name: 'Calibrations', of: ['calibration'] },
  { to: { name: 'field-card', params: { id: props.id } }, name: 'Field card' },
  { to: { name: 'daily', params: { id: props.id } }, name: 'Today' },
  {
    to: { name: 'faults', params: { id: props.id } },
    name: 'Faults',
    of: ['trace', 'own-symptoms', 'swap-test', 'recordings', 'recording'],
  },
  { to: { name: 'wear', params: { id: props.id } }, name: 'Wear' },
  { to: { name: 'logbook', params: { id: props.id } }, name: 'Logbook' },
  { to: { name: 'particulars', params: { id: props.id } }, name: 'What it is' },
]
</script>

<template>
  <PageTabs label="This machine" :ways="WAYS" />
</template>
