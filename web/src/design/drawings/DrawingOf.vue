<script setup lang="ts">
/** A drawing of whatever it is told. */
import { computed } from 'vue'
import { DRAWINGS, type Drawing } from './registry'

const props = defineProps<{ drawing: Drawing }>()
const told = computed(() => Object.fromEntries(Object.entries(props.drawing).filter(([name]) => name !== 'kind')))
</script>

<template><component :is="DRAWINGS[drawing.kind]" v-bind="told" /></template>
