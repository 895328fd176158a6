<script setup lang="ts">
/** What a machine may have or not, each asked with yes or no, with a picture of what it is. */
import type { Schemas } from '@/api/client'
import StateLook from '@/design/looks/StateLook.vue'
import { signOf } from '@/design/stationSigns'

defineProps<{ options: Schemas['HasOut'][]; disabled?: boolean }>()
/** Every option that has been answered. */
const answers = defineModel<Record<string, boolean>>({ required: true })
const say = (key: string, yes: boolean): void => void (answers.value = { ...answers.value, [key]: yes })
</script>

<template>
  <ul class="options">
    <li v-for="one in options" :key="one.key">
      <div class="one" role="group" :aria-label="one.name" :class="{ has: answers[one.key] }">
        <StateLook v-if="one.picture.motif" :motif="one.picture.motif" :state="one.picture.state" />
        <svg v-else class="sign" viewBox="0 0 40 30" aria-hidden="true"><path :d="signOf(one.picture.sign)" /></svg>
        <span class="name">{{ one.name }}?</span>
        <span class="answer">
          <button type="button" :aria-pressed="answers[one.key] === true" :disabled="disabled" @click="say(one.key, true)">
            Yes
          </button>
          <button type="button" :aria-pressed="answers[one.key] === false" :disabled="disabled" @click="say(one.key, false)">
            No
          </button>
        </span>
      </div>
    </li>
  </ul>
</template>

<style scoped>
.options {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(340px, 100%), 1fr));
  gap: 6px 16px;
}
.one {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 56px;
  padding: 4px 8px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
}
.has {
  border-color: var(--accent);
}
.sign {
  width: 60px;
  height: 46px;
  flex: none;
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.name {
  flex: 1;
}
.answer {
  display: flex;
}
.answer button {
  min-width: 52px;
  min-height: var(--target);
  border: 1px solid var(--line);
  background: var(--surface);
  cursor: pointer;
}
.answer button:first-child {
  border-radius: 6px 0 0 6px;
}
.answer button:last-child {
  border-left: 0;
  border-radius: 0 6px 6px 0;
}
.answer button[aria-pressed='true'] {
  background: var(--accent);
  border-color: var(--accent);
  color: var(--on-accent);
  font-weight: 600;
}
</style>
