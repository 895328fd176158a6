<script setup lang="ts">
/** A strip-down step by step: a picture for each part that comes off, and backwards when it goes together again. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, reactive, ref, watch } from 'vue'
import { api, Refused, write, type Schemas } from '@/api/client'
import { outbox } from '@/api/outbox'
import { keepPhoto } from '@/api/photos'
import { counted } from '@/app/counted'

type Step = Schemas['StripPictureOut']
const props = defineProps<{ id: string; stripDown: string; place: string; name: string; steps: Step[]; mayAdd: boolean }>()
const emit = defineEmits<{ changed: [steps: Step[]]; reload: [] }>()
const file = ref<HTMLInputElement | null>(null)
const typed = reactive({ words: '', loose: '' })
const problem = ref('')
/** Whether it is being put together: the last step first, and what is back counted off. */
const refitting = ref(false)
const removed = ref('')
/** Kept in this browser: a reload in the middle of the refit forgets no bolt. */
const KEY = `lumvek:back-on ${props.id} ${props.stripDown} ${props.place}`
const back = ref((localStorage.getItem(KEY) ?? '').split(' '))
watch(back, (on) => localStorage.setItem(KEY, on.join(' ')))
const mine = computed(() => props.steps.filter((one) => one.strip_down === props.stripDown && one.place === props.place))
const shown = computed(() => {
  const numbered = mine.value.map((step, i) => ({ step, number: i + 1 }))
  return refitting.value ? numbered.reverse() : numbered
})
const loose = computed(() => mine.value.reduce((sum, one) => sum + one.loose, 0))
const still = computed(() =>
  mine.value.filter((one) => !back.value.includes(one.uuid)).reduce((sum, one) => sum + one.loose, 0),
)
const waiting = computed(() => outbox.of(props.id).filter((one) => one.path.endsWith('/strip-pictures')).length)
watch(waiting, (now, before) => now < before && emit('reload'))

/** The count is judged before the camera opens: a picture taken must not be lost to it. */
function take(): void {
  const counts = /^\s*\d{0,3}\s*$/.test(typed.loose)
  problem.value = counts ? '' : 'Loose parts are counted: a whole number up to 999.'
  if (counts) file.value?.click()
}
async function chosen(): Promise<void> {
  const picked = file.value?.files?.[0]
  if (!picked) return
  const sent = { ...typed }
  try {
    const loose = String(Number(sent.loose.trim()))
    const body = { strip_down: props.stripDown, place: props.place, words: sent.words.trim(), loose }
    await keepPhoto(picked, '/api/walk-arounds/{walk_around_id}/strip-pictures', { walk_around_id: props.id }, body, {
      what: `Picture of a strip-down: ${props.name}`,
      shown: body.words,
    })
    if (typed.words === sent.words) typed.words = ''
    if (typed.loose === sent.loose) typed.loose = ''
    problem.value = ''
  } catch (error) {
    problem.value = (error as Error).message
  }
  if (file.value) file.value.value = ''
}
async function change(step: string, way: 'remove' | 'restore'): Promise<void> {
  try {
    const steps = await write(() =>
      api.POST(`/api/walk-arounds/{walk_around_id}/strip-pictures/{picture_id}/${way}`, {
        params: { path: { walk_around_id: props.id, picture_id: step } },
      }),
    )
    emit('changed', steps)
    removed.value = way === 'remove' ? step : ''
    problem.value = ''
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'That could not be done.'
  }
}
function tick(step: string): void {
  back.value = back.value.includes(step) ? back.value.filter((one) => one !== step) : [...back.value, step]
}
</script>

<template>
  <details class="album">
    <summary>
      Pictures in order of removal
      <span class="quiet">{{ counted(mine.length, 'step') }}, {{ counted(loose, 'loose part') }}</span>
    </summary>
    <form v-if="mayAdd && !refitting" class="add" @submit.prevent="take">
      <InputText v-model="typed.words" maxlength="200" aria-label="What came off" placeholder="What came off" />
      <InputText
        v-model="typed.loose"
        class="few"
        inputmode="numeric"
        aria-label="Loose parts with it"
        placeholder="Loose parts"
      />
      <Button type="submit" severity="secondary" label="Take the picture" />
    </form>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p v-else-if="waiting" class="quiet" role="status">{{ counted(waiting, 'picture') }} on the way</p>
    <p v-if="removed" role="status">
      Step removed. <button type="button" class="link" @click="change(removed, 'restore')">Put it back</button>
    </p>
    <p v-if="mine.length">
      <Button
        severity="secondary"
        :label="refitting ? 'Show in order of removal' : 'Refit: show them backwards'"
        @click="refitting = !refitting"
      />
      <span v-if="refitting" class="count" aria-live="polite">{{
        still ? `${counted(still, 'loose part')} still to go back` : 'Every loose part is back'
      }}</span>
    </p>
    <ol class="steps">
      <li v-for="{ step, number } in shown" :key="step.uuid" :class="{ done: refitting && back.includes(step.uuid) }">
        <b class="num">{{ number }}</b>
        <a :href="`/api/walk-arounds/${id}/strip-pictures/${step.uuid}`" target="_blank" rel="noopener"
          ><img
            :src="`/api/walk-arounds/${id}/strip-pictures/${step.uuid}`"
            :alt="step.words || `Step ${number}`"
            loading="lazy" /></a
        ><span
          >{{ step.words || 'Step ' + number }}<small class="quiet">{{ counted(step.loose, 'loose part') }}</small></span
        >
        <label v-if="refitting"
          ><input type="checkbox" :checked="back.includes(step.uuid)" @change="tick(step.uuid)" /> back on</label
        >
        <button
          v-else-if="mayAdd"
          type="button"
          class="link"
          :aria-label="`Remove step ${number}`"
          @click="change(step.uuid, 'remove')"
        >
          Remove
        </button>
      </li>
    </ol>
    <input
      ref="file"
      class="unseen"
      type="file"
      accept="image/jpeg,image/png,image/webp"
      capture="environment"
      tabindex="-1"
      aria-label="Picture of the step"
      @change="chosen"
    />
  </details>
</template>

<style scoped>
.album {
  margin-top: 8px;
}
summary {
  min-height: var(--target);
  display: flex;
  gap: 10px;
  align-items: center;
  cursor: pointer;
  font-weight: 600;
}
summary::before {
  content: '+';
  color: var(--accent);
}
.album[open] > summary::before {
  content: '–';
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.few {
  width: 130px;
}
.count {
  margin-left: 12px;
  font-weight: 600;
}
.steps {
  list-style: none;
  margin: 0;
  padding: 0;
}
.steps li {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.steps li.done {
  opacity: 0.6;
}
img {
  display: block;
  width: 112px;
  height: 84px;
  object-fit: cover;
  border-radius: var(--radius);
}
small {
  display: block;
}
label,
.link {
  min-height: var(--target);
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.link {
  border: 0;
  background: none;
  color: var(--accent);
  font: inherit;
  font-weight: 600;
  cursor: pointer;
}
.unseen {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
</style>
