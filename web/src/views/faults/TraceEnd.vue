<script setup lang="ts">
/** How a trace ends: found, not found, or to be watched; gone after a change of speed or range is not cured. */
import { ref, watch } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import type { Schemas } from '@/api/client'
import type { Attempt } from '@/app/useAttempt'
import { useDraft } from '@/app/useDraft'
import type { Trace } from './faults'

const props = defineProps<{ trace: Trace; attempt: Attempt; draft: string }>()
const emit = defineEmits<{ end: [said: Schemas['TraceEndIn']] }>()
/** Kept until the server has it: the page forgets it then. What is nearly certain stands there already, until somebody chooses. */
const { draft: said } = useDraft<Schemas['TraceEndIn']>(
  props.draft,
  () => ({ outcome: 'found', cause: props.trace.sure, otherwise: '', gone: '' }),
  (one) => !!(one.otherwise || one.gone),
)
const chosen = ref(said.cause !== props.trace.sure)
watch(
  () => props.trace.sure,
  (sure) => {
    if (!chosen.value) said.cause = sure
  },
)
const ENDS = [
  { outcome: 'found', name: 'Found' },
  { outcome: 'not-found', name: 'Not found' },
  { outcome: 'watched', name: 'To be watched' },
] as const
</script>

<template>
  <form class="card" data-kept aria-labelledby="end" @submit.prevent="emit('end', { ...said })">
    <h2 id="end">How it ends</h2>
    <div class="tools" role="radiogroup" aria-label="How it ends">
      <label v-for="one in ENDS" :key="one.outcome" class="pick"
        ><input v-model="said.outcome" type="radio" name="outcome" :value="one.outcome" /> {{ one.name }}</label
      >
    </div>
    <template v-if="said.outcome === 'found'"
      ><label for="was">It was</label>
      <select id="was" v-model="said.cause" @change="chosen = true">
        <option value="">choose</option>
        <option v-for="one in trace.causes" :key="one.key" :value="one.key">{{ one.name }}</option>
      </select></template
    >
    <p v-if="attempt.field === 'cause'" class="trouble" role="alert">{{ attempt.problem }}</p>
    <label v-if="said.outcome !== 'found' || said.cause === 'something-else'" class="line"
      >In words <InputText v-model="said.otherwise" maxlength="200" :invalid="attempt.field === 'otherwise'"
    /></label>
    <p v-if="attempt.field === 'otherwise'" class="trouble" role="alert">{{ attempt.problem }}</p>
    <label for="gone">Is it gone?</label>
    <select id="gone" v-model="said.gone">
      <option value="">not yet</option>
      <option value="put-right">yes, since it was put right</option>
      <option value="other-speed">yes, since a speed or range was changed</option>
    </select>
    <p v-if="attempt.field === 'outcome'" class="trouble" role="alert">{{ attempt.problem }}</p>
    <Button type="submit" severity="secondary" label="End the trace" :disabled="attempt.busy" />
  </form>
</template>

<style scoped>
.pick {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: var(--target);
  padding-right: 12px;
}
.line {
  display: block;
  margin: 8px 0;
}
select,
.line :deep(input) {
  display: block;
  width: 100%;
  margin-top: 4px;
}
</style>
