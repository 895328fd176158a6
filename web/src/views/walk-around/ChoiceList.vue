<script setup lang="ts">
/** What can be chosen, each with its number, and with what it looks like where that is drawn. */
import SeverityMark from '@/design/SeverityMark.vue'
import StateLook from '@/design/looks/StateLook.vue'
import { wordsOf } from '@/design/looks/looks'
import type { Severity } from '@/design/severity'

const props = defineProps<{
  choices: { key: string; name: string; hint?: string; severity?: string }[]
  look?: string
  chosen?: string
}>()
const emit = defineEmits<{ choose: [key: string] }>()
const beside = (one: { key: string; hint?: string }): string => one.hint || (props.look ? wordsOf(props.look, one.key) : '')
</script>

<template>
  <ol class="choices" :class="{ drawn: look }">
    <li v-for="(one, i) in choices" :key="one.key">
      <button type="button" :class="{ on: chosen === one.key }" @click="emit('choose', one.key)">
        <StateLook v-if="look" :motif="look" :state="one.key" />
        <kbd>{{ i + 1 }}</kbd>
        <span
          >{{ one.name }}<small v-if="beside(one)" class="quiet">{{ beside(one) }}</small></span
        >
        <SeverityMark v-if="one.severity && one.severity !== 'sound'" :severity="one.severity as Severity" />
      </button>
    </li>
  </ol>
</template>

<style scoped>
.choices {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 4px 6px;
}
.choices button {
  display: flex;
  align-items: center;
  gap: 8px;
  width: 100%;
  min-height: 46px;
  padding: 2px 10px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--surface);
  text-align: left;
  height: 100%;
  line-height: 1.15;
  cursor: pointer;
}
.choices.drawn button {
  padding: 4px 10px 4px 6px;
}
.choices :deep(.look) {
  width: 48px;
  height: 36px;
}
.choices small {
  display: block;
  font-weight: 400;
}
.choices button:hover {
  border-color: var(--ink);
}
.choices button.on {
  border-color: var(--accent);
  background: var(--accent-soft);
  font-weight: 600;
}
.choices .mark {
  margin-left: auto;
}
</style>
