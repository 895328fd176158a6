<script setup lang="ts">
/** What to look at now: where, with which lock, how, and what its answer would tell. */
import { ref } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import type { Attempt } from '@/app/useAttempt'
import { useDraft } from '@/app/useDraft'
import { whole, type Look } from './faults'
import { upper } from '@/app/words'

const props = defineProps<{ look: Look; walkAround: string; best: boolean; attempt: Attempt; draft: string }>()
const emit = defineEmits<{ said: [bad: boolean, words: string, locked: boolean] }>()
/** What is being typed, kept until the server has the answer. */
const { draft: kept } = useDraft(
  props.draft,
  () => ({ words: '' }),
  (one) => !!one.words,
)
/** The lock was confirmed, by an act of its own. */
const locked = ref(!props.look.lock)
</script>

<template>
  <article class="card look" aria-labelledby="look">
    <p class="quiet">{{ best ? 'Look at this next' : 'Look at this' }}</p>
    <h2 id="look" tabindex="-1">{{ look.name }}</h2>
    <p class="how">{{ look.how }}</p>
    <p class="where">
      <b>{{ upper(look.posture) }}</b>
      <span class="quiet">
        {{ whole(look) }} min{{ look.way_minutes ? `, ${Math.round(look.way_minutes)} of them to get there` : '' }}</span
      >
    </p>
    <ul v-if="look.cautions.length" class="cautions">
      <li v-for="line in look.cautions" :key="line">{{ line }}</li>
    </ul>
    <p class="why">{{ look.why }}</p>
    <template v-if="look.check">
      <RouterLink :to="{ name: 'walk-around', params: { id: walkAround }, query: { check: look.check } }" class="record"
        >Look, and record it</RouterLink
      >
      <p class="quiet">Its verdict is the answer; come back here when it is read.</p>
    </template>
    <template v-else-if="!locked">
      <p class="lock">{{ look.lock }}</p>
      <Button label="It is locked" @click="locked = true" />
    </template>
    <template v-else>
      <p v-if="look.lock" class="quiet">✓ {{ look.lock }}</p>
      <label class="words">What was seen <InputText v-model="kept.words" maxlength="200" /></label>
      <p v-if="attempt.problem && attempt.field" class="trouble" role="alert">{{ attempt.problem }}</p>
      <div class="tools">
        <Button label="That is wrong" :disabled="attempt.busy" @click="emit('said', true, kept.words, locked)" />
        <Button
          severity="secondary"
          label="All right there"
          :disabled="attempt.busy"
          @click="emit('said', false, kept.words, locked)"
        />
      </div>
    </template>
  </article>
</template>

<style scoped>
.look h2 {
  scroll-margin-top: 60px;
  font-size: 1.5rem;
  margin: 0 0 6px;
}
.how {
  font-size: 1.15rem;
}
.where,
.why {
  margin: 8px 0;
}
.cautions {
  margin: 0;
  padding-left: 18px;
}
.lock {
  border-left: 4px solid var(--due);
  padding: 6px 12px;
}
.record {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  min-height: 52px;
  padding: 0 22px;
  border-radius: var(--radius);
  background: var(--accent);
  color: var(--on-accent);
  font-weight: 600;
  text-decoration: none;
}
.words {
  display: block;
  margin: 8px 0;
}
.words :deep(input) {
  display: block;
  width: 100%;
}
.tools :deep(button) {
  min-height: 52px;
}
</style>
