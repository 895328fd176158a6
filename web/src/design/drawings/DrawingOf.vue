<script setup lang="ts">
/** A drawing of whatever it is told. */
import { DRAWINGS, type Drawing } from './registry'

defineProps<{ drawing: Drawing }>()
</script>

<template><component :is="DRAWINGS[drawing.kind]" v-bind="drawing" /></template>
