<script setup lang="ts">
/** What stands before the door: a planter's row, from residue to closing, and one form. */
import { SIGNS } from '@/design/stationSigns'

const shown = Object.fromEntries(
  ['residue', 'arms', 'opener', 'tube', 'gauge-wheel', 'depth', 'firming', 'closing', 'load'].map((key) => [key, SIGNS[key]]),
)
</script>

<template>
  <div class="gate">
    <ol class="ground" aria-hidden="true">
      <li v-for="(sign, key) in shown" :key="key">
        <svg viewBox="0 0 40 30"><path :d="sign" /></svg>
      </li>
    </ol>
    <div class="form"><slot /></div>
  </div>
</template>

<style scoped>
.gate {
  min-height: 100vh;
  display: grid;
  align-content: center;
  justify-items: center;
  gap: 8px;
  padding: 24px;
}
.ground {
  display: flex;
  width: min(560px, 100%);
  border-bottom: 6px solid var(--ink);
  padding-bottom: 4px;
  margin-bottom: 28px;
  position: relative;
}
.ground::after {
  content: '';
  position: absolute;
  right: -12px;
  bottom: -12px;
  border: 9px solid transparent;
  border-left: 13px solid var(--ink);
  border-right: 0;
}
.ground li {
  flex: 1;
}
.ground svg {
  display: block;
  width: 100%;
  max-width: 56px;
}
.ground path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.ground li:nth-child(3) path {
  stroke: var(--accent);
}
.form {
  width: min(360px, 100%);
}
</style>
