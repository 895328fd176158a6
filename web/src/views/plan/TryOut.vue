<script setup lang="ts">
/** What if: one more day, one more pair of hands, a part at once, another date. It is shown what it would gain; nothing is changed. */
import { computed, ref } from 'vue'
import Button from '@/design/controls/button'
import type { Plan } from './planned'
import type { Tried } from './usePlan'

const props = defineProps<{ plan: Plan; busy: boolean }>()
const emit = defineEmits<{ try: [what: Tried] }>()
const what = ref<'hand' | 'day' | 'rush' | 'date'>('hand')
const day = ref('')
const part = ref('')
const machine = ref(0)
const parts = computed(() => [...new Map(props.plan.jobs.flatMap((job) => job.parts).map((one) => [one.id, one.words]))])
const ready = computed(
  () =>
    what.value === 'hand' ||
    (what.value === 'day' && day.value) ||
    (what.value === 'rush' && part.value) ||
    (what.value === 'date' && machine.value && day.value),
)
function go(): void {
  if (what.value === 'hand') emit('try', { hand: true })
  else if (what.value === 'day') emit('try', { day: day.value })
  else if (what.value === 'rush') emit('try', { rush: part.value })
  else emit('try', { machine: machine.value, season_date: day.value })
}
</script>

<template>
  <form class="tools" aria-label="What if" @submit.prevent="go">
    <label
      ><b>What if</b>
      <select v-model="what">
        <option value="hand">there was one more pair of hands</option>
        <option value="day">everybody worked on</option>
        <option value="rush">a part was here at once</option>
        <option value="date">a machine was wanted on another day</option>
      </select></label
    >
    <label v-if="what === 'rush'"
      >Part
      <select v-model="part">
        <option v-for="[id, words] in parts" :key="id" :value="id">{{ words }}</option>
      </select></label
    >
    <label v-if="what === 'date'"
      >Machine
      <select v-model="machine">
        <option v-for="one in plan.machines" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select></label
    >
    <label v-if="what === 'day' || what === 'date'">Day <input v-model="day" type="date" /></label>
    <Button type="submit" severity="secondary" label="Try it" :disabled="busy || !ready" />
  </form>
</template>
