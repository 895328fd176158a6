<script setup lang="ts">
/** One job: who, when, where, with what; and moving it without a pointer. */
import { ref, watch } from 'vue'
import Button from '@/design/controls/button'
import AskOnce from '@/app/AskOnce.vue'
import { moment, when } from '@/app/words'
import { span } from '@/app/duration'
import { type Job, type Plan } from './planned'

const props = defineProps<{ plan: Plan; job: Job; moves: boolean; busy: boolean }>()
const emit = defineEmits<{
  move: [job: Job, start: string, technicians: string[]]
  letGo: [job: Job]
  takeBack: [job: Job]
  change: [job: Job]
  close: []
}>()
const start = ref('')
const first = ref('')
const second = ref('')
function asItStands(): void {
  start.value = props.job.stretches[0]?.start ?? ''
  first.value = props.job.technicians[0] ?? ''
  second.value = props.job.technicians[1] ?? ''
}
watch(() => [props.job.key, props.job.stretches[0]?.start], asItStands, { immediate: true })
const chosen = (): string[] => [first.value, second.value].slice(0, props.job.hands).filter(Boolean)
</script>

<template>
  <section class="card job" :aria-label="job.name">
    <header class="tools">
      <h2 class="grow">{{ job.machine }}: {{ job.name }}</h2>
      <button type="button" class="link" @click="emit('close')">Close</button>
    </header>
    <p v-if="job.pin_trouble" class="trouble" role="alert">It is {{ job.pin_trouble }}.</p>
    <p v-if="job.without" class="trouble">No place in the plan: {{ job.without }}.</p>
    <p v-if="job.cannot" class="trouble">Could not be done: {{ job.cannot }}.</p>
    <dl>
      <template v-if="job.stretches.length">
        <dt>When</dt>
        <dd>
          <span v-for="one in job.stretches" :key="one.start">{{ when(one.start) }}–{{ one.end.slice(11, 16) }}</span>
        </dd>
        <dt>Who</dt>
        <dd>{{ job.technicians.join(' and ') }}</dd>
      </template>
      <dt>Takes</dt>
      <dd>
        {{ span(job.minutes) }}<template v-if="job.hands > 1">, {{ job.hands }} people</template
        ><template v-if="job.skill">, {{ job.skill }}</template>
        <small v-if="job.timed"
          >timed {{ job.timed }} × here<template v-if="job.low !== null && job.high !== null"
            >, mostly {{ span(job.low) }} to {{ span(job.high) }}</template
          ></small
        >
      </dd>
      <dt>Where</dt>
      <dd>
        {{ job.place || 'at the bench' }}<small v-if="job.posture">{{ job.posture }}</small>
      </dd>
      <template v-if="job.parts.length">
        <dt>Waits for</dt>
        <dd>
          <span v-for="one in job.parts" :key="one.words"
            >{{ one.words
            }}<small>{{ one.arrives ? `${when(one.arrives)}, ${one.by}` : 'nobody knows when it comes' }}</small></span
          >
        </dd>
      </template>
      <template v-if="job.tools.length">
        <dt>Tools</dt>
        <dd>{{ job.tools.join(', ') }}</dd>
      </template>
    </dl>
    <ul v-if="job.cautions.length" class="cautions">
      <li v-for="one in job.cautions" :key="one">{{ one }}</li>
    </ul>
    <form v-if="moves && !job.done" class="tools" @submit.prevent="emit('move', job, start, chosen())">
      <label>Start <input v-model="start" type="datetime-local" step="900" required /></label>
      <label v-if="job.technicians.length"
        >Who
        <select v-model="first">
          <option v-for="one in plan.people" :key="one.name">{{ one.name }}</option>
        </select></label
      >
      <label v-if="job.hands > 1"
        >and
        <select v-model="second">
          <option v-for="one in plan.people" :key="one.name">{{ one.name }}</option>
        </select></label
      >
      <Button type="submit" severity="secondary" label="Set it there" :disabled="busy" />
      <button v-if="job.pinned" type="button" class="link" :disabled="busy" @click="emit('letGo', job)">
        Let it move again
      </button>
    </form>
    <details v-if="job.said.length">
      <summary>What was said of it</summary>
      <ul>
        <li v-for="one in job.said" :key="one.at + one.words">{{ moment(one.at) }}, {{ one.by }}: {{ one.words }}</li>
      </ul>
    </details>
    <div v-if="moves && !job.done && job.kind === 'own'" class="tools">
      <button type="button" class="link" :disabled="busy" @click="emit('change', job)">Change the job</button>
      <AskOnce
        plain
        label="Take the job back"
        question="It is planned no more. What was said of it stays in the log."
        yes="Take it back"
        :disabled="busy"
        @yes="emit('takeBack', job)"
      />
    </div>
  </section>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 4px 14px;
  margin: 0;
}
dt {
  color: var(--quiet);
  font-weight: 600;
}
dd {
  margin: 0;
}
dd > span {
  display: block;
}
small {
  display: block;
  color: var(--quiet);
  font-size: 0.92rem;
}
.cautions {
  border-left: 4px solid var(--due);
  padding-left: 12px;
}
</style>
