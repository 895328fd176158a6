<script setup lang="ts">
/** What each key does, to be tapped as well. */
export interface KeyHint {
  key: string
  text: string
  /** In full, for whoever rests on it. */
  says: string
  /** What a phone has room for, where that is less. */
  brief?: string
  act: () => void
  /** Only where there is a keyboard; on a phone `phone` stands for it, or nothing. */
  desk?: boolean
  phone?: string
}
defineProps<{ keys: KeyHint[] }>()
</script>

<template>
  <p class="keys">
    <button
      v-for="item in keys"
      :key="item.key"
      type="button"
      tabindex="-1"
      :title="item.says"
      :class="{ 'by-key': item.desk && !item.phone }"
      @mousedown.prevent
      @click="item.act()"
    >
      <kbd :class="{ 'by-key': item.desk }">{{ item.key }}</kbd><kbd v-if="item.phone" class="phone">{{ item.phone }}</kbd>
      <span :class="{ 'by-key': item.brief }">{{ item.text }}</span><span v-if="item.brief" class="phone">{{
        item.brief
      }}</span>
    </button>
  </p>
</template>

<style scoped>
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 0 2px;
}
.keys kbd {
  padding: 0 0.25em;
  font-size: 0.88em;
}
.keys .phone {
  display: none;
}
.keys button {
  min-height: var(--target);
  padding: 0 4px;
  white-space: nowrap;
  border: 0;
  border-radius: var(--radius);
  background: none;
  cursor: pointer;
  color: var(--quiet);
}
.keys button:hover {
  background: var(--sunk);
  color: var(--ink);
}
@media (max-width: 700px) {
  .keys {
    display: grid;
    grid-auto-flow: column;
    grid-auto-columns: minmax(0, 1fr);
    gap: 2px;
  }
  .keys button {
    display: grid;
    justify-items: center;
    gap: 1px;
    padding: 2px 0;
    min-width: 44px;
    line-height: 1.1;
    font-size: 0.85rem;
    white-space: normal;
  }
  .keys .by-key {
    display: none;
  }
  .keys .phone {
    display: inline-block;
  }
}
</style>
