<script setup lang="ts">
/** A walk-around that was begun on this device and cannot begin: what was typed in it is not lost with it. */
import { onMounted, ref } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { answer, api, type Schemas } from '@/api/client'
import { isHold, outbox, type Entry } from '@/api/outbox'
import { counted } from '@/app/counted'
import { useAttempt } from '@/app/useAttempt'
import { moment, upper } from '@/app/words'

const props = defineProps<{ begin: Entry }>()
const emit = defineEmits<{ done: [words: string] }>()
const at = useAttempt()
/** Others of the machine that are under way. */
const running = ref<Schemas['WalkAroundBrief'][]>([])
const asks = ref(false)
const word = ref('')
const missing = ref('')
const typed = (): Entry[] => outbox.typedIn(props.begin).filter((entry) => !isHold(entry))

onMounted(() =>
  at.read(async () => {
    const path = { machine_id: Number(props.begin.params.machine_id) }
    running.value = (await answer(api.GET('/api/machines/{machine_id}/start', { params: { path } }))).running
  }),
)
function into(other: Schemas['WalkAroundBrief']): void {
  const many = typed().length
  outbox.instead(props.begin, other.id)
  emit('done', `${counted(many, 'entry', 'entries')} sent to the walk-around begun ${moment(other.started_at)}.`)
}
function discard(): void {
  if (!word.value.trim()) return void (missing.value = 'Say why it is discarded')
  const gone = [...outbox.typedIn(props.begin), props.begin]
  for (const entry of gone) outbox.drop(entry.uuid)
  emit('done', `${props.begin.about.what}: discarded.`)
}
</script>

<template>
  <div class="words">
    <p>
      <b>{{ begin.about.what }}</b> <span class="quiet">{{ begin.about.machine }}</span>
    </p>
    <p class="why">{{ upper(begin.refused!.message) }}</p>
    <p v-if="typed().length">{{ counted(typed().length, 'entry typed in it waits', 'entries typed in it wait') }} here.</p>
    <form v-if="asks" @submit.prevent="discard" @keydown.esc="asks = false">
      <label :for="`word-${begin.uuid}`">Why is it discarded, with all that was typed in it?</label>
      <InputText :id="`word-${begin.uuid}`" v-model="word" v-focus maxlength="300" :invalid="!!missing" />
      <Button type="submit" size="small" label="Discard all of it" />
      <Button size="small" text severity="secondary" label="Cancel" data-out @click="asks = false" />
    </form>
    <p v-if="asks && missing" class="problem" role="alert">{{ missing }}</p>
    <p v-if="at.problem" class="problem" role="alert">Other walk-arounds of the machine: {{ at.problem }}</p>
    <ul v-if="typed().length" class="typed" aria-label="Typed in it">
      <li v-for="entry in typed()" :key="entry.uuid">
        {{ entry.about.what }}<template v-if="entry.about.shown">: {{ entry.about.shown }}</template>
      </li>
    </ul>
  </div>
  <div v-if="!asks" class="acts">
    <Button size="small" label="Try again" @click="outbox.retry(begin.uuid)" />
    <template v-if="typed().length">
      <Button
        v-for="other in running"
        :key="other.id"
        size="small"
        severity="secondary"
        :label="`Into the walk-around begun ${moment(other.started_at)}`"
        @click="into(other)"
      />
    </template>
    <Button size="small" severity="secondary" text label="Discard" @click="asks = true" />
  </div>
</template>

<style scoped src="./Waiting.css"></style>
