<script setup lang="ts">
/** The states that may be picked, the sound one first, each with what it means and what is done. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { nextTick, ref } from 'vue'
import type { Schemas } from '@/api/client'
import type { Attempt } from '@/app/useAttempt'
import { upper } from '@/app/words'

type State = Required<Schemas['StateIn']>
defineProps<{ at: Attempt; severities: Schemas['NamedKeyOut'][]; actions: Schemas['NamedKeyOut'][] }>()
const states = defineModel<State[]>({ required: true })
const list = ref<HTMLOListElement | null>(null)
const MOST = 9
async function more(): Promise<void> {
  states.value = [...states.value, { name: '', severity: 'due', action: 'repair' }]
  await nextTick()
  list.value?.querySelector<HTMLInputElement>('li:last-child input')?.focus()
}
const without = (i: number): void => void (states.value = states.value.filter((_, at) => at !== i))
const called = (i: number): string => (i ? `State ${i + 1}` : 'The sound state')
</script>

<template>
  <div>
    <ol ref="list" class="states">
      <li v-for="(one, i) in states" :key="i">
        <kbd>{{ i + 1 }}</kbd>
        <InputText
          v-model="one.name"
          maxlength="80"
          :aria-label="called(i)"
          :placeholder="i ? 'What else it may be' : 'As it should be'"
          :invalid="at.field === `states.${i}.name`"
        />
        <template v-if="i">
          <select v-model="one.severity" :aria-label="`What ${one.name || called(i)} means`">
            <option v-for="severity in severities" :key="severity.key" :value="severity.key">{{ severity.name }}</option>
          </select>
          <select v-model="one.action" :aria-label="`What is done then: ${one.name || called(i)}`">
            <option v-for="action in actions" :key="action.key" :value="action.key">{{ upper(action.name) }}</option>
          </select>
          <Button
            v-if="states.length > 2"
            text
            severity="secondary"
            label="Remove"
            :aria-label="`Remove ${one.name || called(i)}`"
            @click="without(i)"
          />
        </template>
        <span v-else class="quiet">Sound</span>
        <span v-if="at.field === `states.${i}.name`" class="problem" role="alert">{{ at.problem }}</span>
      </li>
    </ol>
    <p v-if="at.field === 'states' || /^states\.\d+\.(severity|action)$/.test(at.field)" class="problem" role="alert">
      {{ at.problem }}
    </p>
    <Button v-if="states.length < MOST" severity="secondary" label="Another state" @click="more" />
  </div>
</template>

<style scoped>
.states {
  display: grid;
  gap: 8px;
  margin-bottom: 8px;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
}
li :deep(input) {
  flex: 1 1 180px;
  min-height: var(--target);
}
select {
  flex: 0 1 150px;
}
.problem {
  flex-basis: 100%;
}
</style>
