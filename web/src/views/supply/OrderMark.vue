<script setup lang="ts">
/** What a supplier made of an order: a stamped slip, whole, torn, struck out, or not stamped yet. */
defineProps<{ state: string; word: string }>()
</script>

<template>
  <span class="mark" :class="state">
    <svg viewBox="0 0 22 22" width="22" height="22" aria-hidden="true">
      <path v-if="state === 'short'" d="M4 2.5h14v8l-3 2-3-2-3 2-3-2-2 1.4zM4 16v3.5h14V16" />
      <path v-else d="M4 2.5h14v17H4z" :stroke-dasharray="state === 'to-send' ? '3 3' : undefined" />
      <path v-if="state === 'accepted'" d="m7.5 11 2.6 2.8L15 8" />
      <path v-else-if="state === 'refused'" d="m7.5 7.5 7 7" />
      <path v-else-if="state === 'by-hand'" d="M7.5 14.5c2-5 3 2 4.5-2s2-1 3-1" />
      <path v-else-if="state === 'to-send'" d="M11 7v5M11 15v.2" />
    </svg>
    {{ word }}
  </span>
</template>

<style scoped>
.mark {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  font-weight: 600;
  white-space: nowrap;
}
svg {
  fill: none;
  stroke: currentColor;
  stroke-width: 2;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.accepted,
.by-hand {
  color: var(--sound);
}
.short {
  color: var(--due);
}
.refused,
.to-send {
  color: var(--stop);
}
</style>
