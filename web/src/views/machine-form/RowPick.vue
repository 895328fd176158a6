<script setup lang="ts">
/** The machine from behind, a row beside the other: those behind the tractor's wheels are picked on it. */
const props = defineProps<{ rows: number; disabled?: boolean }>()
const picked = defineModel<number[]>({ required: true })

function toggle(row: number): void {
  picked.value = picked.value.includes(row)
    ? picked.value.filter((one) => one !== row)
    : [...picked.value, row].sort((a, b) => a - b)
}
const shown = (): number => Math.min(Math.max(props.rows, 0), 200)
</script>

<template>
  <div class="bar" role="group" aria-label="Rows behind the wheels">
    <button
      v-for="row in shown()"
      :key="row"
      type="button"
      :aria-pressed="picked.includes(row)"
      :aria-label="`Row ${row} behind a wheel`"
      :disabled="disabled"
      @click="toggle(row)"
    >
      <svg viewBox="0 0 34 40" aria-hidden="true">
        <path class="unit" d="M17 4v14M11 18h12l-2 8h-8z" />
        <path v-if="picked.includes(row)" class="tyre" d="M8 27h18v11H8zM12 27v11M17 27v11M22 27v11" />
        <path v-else class="ground" d="M4 37h26" />
      </svg>
      {{ row }}
    </button>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  border-top: 6px solid var(--ink);
  width: fit-content;
  max-width: 100%;
}
button {
  display: grid;
  justify-items: center;
  min-width: 46px;
  min-height: 66px;
  padding: 0 2px 2px;
  border: 0;
  border-radius: 0 0 6px 6px;
  background: none;
  cursor: pointer;
}
button:hover:enabled {
  background: var(--sunk);
}
button[aria-pressed='true'] {
  background: var(--accent-soft);
  font-weight: 600;
}
svg {
  width: 34px;
  height: 40px;
  fill: none;
  stroke: var(--quiet);
  stroke-width: 1.8;
  stroke-linejoin: round;
}
.unit {
  stroke: var(--ink);
}
.tyre {
  stroke: var(--accent);
  fill: var(--surface);
}
</style>
