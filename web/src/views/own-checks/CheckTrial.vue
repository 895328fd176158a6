<script setup lang="ts">
/** The check as the walk-around will show it, with a reading to try it by. */
import InputText from '@/design/controls/inputtext'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { counted } from '@/app/counted'
import SeverityMark from '@/design/SeverityMark.vue'
import type { Severity } from '@/design/severity'
import ChoiceList from '@/views/walk-around/ChoiceList.vue'
import { upper } from '@/app/words'

const props = defineProps<{ trial: Schemas['TrialOut'] | null; lacking: string }>()
/** What is typed at its first place. */
const tried = defineModel<string[]>({ required: true })
const text = computed({ get: () => tried.value[0] ?? '', set: (typed: string) => void (tried.value = [typed]) })
const options = computed(() => props.trial?.check.options ?? [])
const chosen = computed(() => options.value[Number(text.value) - 1]?.key)
const choose = (key: string): void => void (text.value = String(options.value.findIndex((one) => one.key === key) + 1))
const limits = computed(() => props.trial?.check.figures.map((one) => `${one.name} ${one.shown}`).join('; '))
</script>

<template>
  <aside class="card trial" aria-label="As the walk-around will show it">
    <h2>As the walk-around will show it</h2>
    <p v-if="lacking" class="quiet" role="status">Not yet: {{ lacking }}</p>
    <p v-else-if="!trial" class="quiet">It stands here once it has a kind of machine, a station and a name.</p>
    <template v-if="trial">
      <p class="quiet">{{ trial.station }} · {{ upper(trial.posture) }}</p>
      <h3>
        {{ trial.check.name }} <span v-if="trial.check.safety" class="chip stop">safety item</span>
        <span v-if="trial.check.optional" class="chip">optional</span>
      </h3>
      <p>{{ trial.check.how }}</p>
      <ul v-if="trial.check.hazards.length" class="cautions">
        <li v-for="one in trial.check.hazards" :key="one">{{ one }}</li>
      </ul>
      <p class="place">
        <b>{{ trial.places[0]?.label }}</b>
        <span v-if="trial.places.length > 1" class="quiet">
          1 of {{ counted(trial.places.length, 'place') }}, to {{ trial.places[trial.places.length - 1]?.label }}</span
        >
      </p>
      <ChoiceList v-if="options.length" :choices="options" :look="trial.check.look" :chosen="chosen" @choose="choose" />
      <label v-else class="try"
        >Try a reading<InputText v-model="text" maxlength="40" :invalid="!!trial.problem" /><span>{{
          trial.check.unit_shown
        }}</span></label
      >
      <p v-if="limits" class="quiet">{{ limits }}</p>
      <p v-if="trial.problem" class="problem" role="status">{{ upper(trial.problem) }}</p>
      <div v-else-if="trial.verdict" class="verdict" role="status">
        <p>
          <SeverityMark :severity="trial.severity as Severity" /> <b v-if="trial.action">{{ upper(trial.action) }}</b>
        </p>
        <p>{{ trial.verdict }}</p>
        <p v-if="trial.parts.length">On the parts list: {{ trial.parts.join(', ') }}</p>
        <p v-if="trial.check.why" class="quiet">{{ trial.check.why }}</p>
      </div>
      <p v-else class="quiet">{{ options.length ? 'Pick one' : 'Type one' }} to see what it comes to. Nothing is kept.</p>
    </template>
  </aside>
</template>

<style scoped>
.trial {
  position: sticky;
  top: 12px;
}
.place b {
  font-size: 1.3rem;
}
.try {
  display: flex;
  align-items: center;
  gap: 8px;
  font-weight: 600;
}
.try :deep(input) {
  flex: 1;
  min-width: 0;
  font-size: 1.3rem;
  min-height: var(--target);
}
.cautions li::before {
  content: '! ';
  font-weight: 700;
  color: var(--due);
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
.chip {
  font-size: 0.85rem;
  font-weight: 600;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 0 6px;
}
.chip.stop {
  color: var(--stop);
}
@media (max-width: 1000px) {
  .trial {
    position: static;
  }
}
</style>
