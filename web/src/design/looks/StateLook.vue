<script setup lang="ts">
/** What one state of a thing looks like: a small drawing made in the core. Its word stands beside it, so it is silent itself. */
import { computed } from 'vue'
import { strokesOf } from './looks'

const props = defineProps<{ motif: string; state: string }>()
const strokes = computed(() => strokesOf(props.motif, props.state))
</script>

<template>
  <svg v-if="strokes.length" class="look" viewBox="-1 -1 66 50" aria-hidden="true">
    <path v-for="([role, d], i) in strokes" :key="i" :class="role" :d="d" />
  </svg>
</template>

<style scoped>
.look {
  width: 60px;
  height: 46px;
  flex: none;
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.body {
  fill: var(--look-body, var(--surface));
}
.thin {
  stroke: var(--quiet);
  stroke-width: 1.1;
}
.gone {
  stroke: var(--quiet);
  stroke-width: 1.5;
  stroke-dasharray: 3 3;
}
.fault {
  stroke: var(--due);
  stroke-width: 2.6;
}
.dark {
  fill: var(--ink);
  fill-opacity: 0.7;
  stroke: none;
}
.oil {
  fill: #b8860b;
  stroke: none;
}
.milk {
  fill: #cfc7b4;
  stroke: var(--quiet);
  stroke-width: 1;
}
.grain {
  fill: #e3c26a;
  stroke: #20242a;
  stroke-width: 1.3;
}
</style>
