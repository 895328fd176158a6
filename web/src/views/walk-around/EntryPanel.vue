<script setup lang="ts">
/** The check in hand: what to do, the position asked for, and one field. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, ref } from 'vue'
import type { Check, Place, Schemas } from '@/api/client'
import { byFinger } from '@/app/finger'
import { counted } from '@/app/counted'
import { date, upper } from '@/app/words'
import SeverityMark from '@/design/SeverityMark.vue'
import GaugePanel from '@/standins/GaugePanel.vue'
import DrawingOf from '@/design/drawings/DrawingOf.vue'
import LooksRow from '@/design/looks/LooksRow.vue'
import { countedOf } from '@/design/looks/looks'
import { drawingOf } from './drawingOf'
import ChoiceList from './ChoiceList.vue'
import KeyBar, { type KeyHint } from './KeyBar.vue'
import PasteSheet from './PasteSheet.vue'
import { NOT_SEEN_REASONS, type Entry } from './entry'
import { useKeys } from './useKeys'

const props = defineProps<{
  entry: Entry
  check: Check
  /** The verdict given last, if it is of this check: the drawing shows it. */
  last?: Place
  posture?: Schemas['PostureOut']
  held: boolean
  readOnly: boolean
  walkAround: string
  /** All positions of this check, for drawings that show them beside each other. */
  sisters: { label: string; place: Place }[]
  /** The name of a place of any check. */
  named: (check: string, position: string) => string
}>()
const emit = defineEmits<{ note: []; picture: [] }>()

const more = ref(false)
const field = ref<{ $el: HTMLInputElement } | null>(null)
defineExpose({
  focus: () => {
    const input = field.value?.$el
    input?.focus({ preventScroll: true })
    // What could not be taken stands there to be corrected, or typed over.
    if (entry.question.value?.kind === 'refused') input?.select()
  },
})

const entry = props.entry
const keys = useKeys(entry)
const shown = computed(() => entry.place.value ?? props.last)
const drawing = computed(() => drawingOf(props.check, shown.value, props.sisters))
const detour = computed(() => {
  const back = entry.hand.detour.value?.from
  return back ? near(back.check, back.position) : ''
})
/** The name of a place, without its check where that is the one in hand. */
const near = (check: string, position: string): string =>
  check === props.check.key ? props.named(check, position).replace(`${props.check.name}, `, '') : props.named(check, position)
const unit = computed(() => {
  if (entry.notSeen.value || entry.isChoice.value) return ''
  return props.check.unit_shown
})
/** What a faulty one looks like, where faults are counted. */
const faults = computed(() =>
  entry.isChoice.value
    ? []
    : countedOf(props.check.look).map((state) => ({
        motif: props.check.look,
        state,
        name: upper(state),
      })),
)
/** How this place stood the last time, where that is how the machine is set up. */
const before = computed(() => props.check.last.find((one) => one.position === entry.position.value))
const ask = computed(() => (entry.question.value?.kind === 'asked' ? entry.place.value : undefined))
const fieldName = computed(() => {
  const slot = entry.slots.value[entry.done.value.length]
  const what = entry.notSeen.value ? 'why it was not seen' : [props.check.name, slot].filter(Boolean).join(', ')
  return `${entry.label.value}: ${what}${unit.value ? `, ${unit.value}` : ''}`
})
const placeholder = computed(() => {
  if (entry.notSeen.value) return 'Why? 1–4 or your own words'
  if (entry.isChoice.value) return `1–${props.check.options.length}`
  return entry.slots.value[entry.done.value.length] ?? PLACEHOLDERS[props.check.kind] ?? ''
})
const PLACEHOLDERS: Record<string, string> = {
  interval: 'Last done: 1890 h or 2026-03-05',
  note: 'In words',
  count: 'How many',
}
const limits = computed(() =>
  props.check.figures.map((one) => `${one.name} ${one.shown} (${one.source}${one.note ? ': ' + one.note : ''})`),
)
const postureName = computed(() => {
  const name = props.posture?.name ?? ''
  return upper(name)
})
const left = computed(() => entry.leftInBulk.value.length)
const KEYS = computed<KeyHint[]>(() => [
  { key: '=', text: 'same', says: 'Same as the last reading', act: entry.repeatLast },
  ...(entry.isChoice.value ? [{ key: '.', text: 'sound', says: 'Sound like the others', act: entry.markSound }] : []),
  ...(left.value
    ? [
        {
          key: '+',
          text: `rest right (${left.value}) …`,
          brief: `rest (${left.value})`,
          says: `The rest of the station looks right (${left.value})`,
          act: entry.markRest,
        },
      ]
    : []),
  { key: '−', text: 'not seen', says: 'Not seen, with a reason', act: entry.askNotSeen },
  { key: '*', text: 'not there', says: 'Does not apply', act: entry.doesNotApply },
  { key: 'Alt N', text: 'note', says: 'Note', act: () => emit('note'), desk: true, phone: '✎' },
  { key: 'Alt P', text: 'picture', says: 'Picture', act: () => emit('picture'), desk: true, phone: '◉' },
  { key: 'Ctrl Z', text: 'undo', says: 'Undo the last reading', act: entry.undo, desk: true, phone: '↶' },
])

const splitWords = computed(() => {
  const plan = entry.splitting.value
  if (!plan) return ''
  const [first, second] = plan.records
  const to = second
    ? `${second.raw[0]} at ${near(second.check.key, second.position)}`
    : `${plan.rest[0] ?? ''} begins ${plan.next ? near(plan.next.check.key, plan.next.position) : ''}`
  return `${first?.raw.join(' · ')} here, ${to}${plan.moved ? `; the ${counted(plan.moved, 'place typed after it moves', 'places typed after it move')} one on` : ''}.`
})

/** The keypad a phone shows: figures where figures do, but for inches, which have fractions, and for words. */
const inputmode = computed(() => {
  if (entry.notSeen.value || ['note', 'interval'].includes(props.check.kind)) return 'text'
  if (props.check.more_than_figures || unit.value === 'in') return 'text'
  // Choices are tapped where fingers are: a keypad would lie over them.
  if (entry.isChoice.value) return byFinger() ? 'none' : 'numeric'
  return 'decimal'
})
/** A column is looked at first; a single figure is typed as it is. */
function paste(event: ClipboardEvent): void {
  if (entry.paste(event.clipboardData?.getData('text') ?? '')) event.preventDefault()
}
function use(text: string): void {
  entry.record({ raw: [text] })
}
</script>

<template>
  <section class="hand" :class="{ whole: entry.position.value === 'all' }" :aria-label="`Check in hand: ${check.name}`">
    <div class="about">
      <h2>
        {{ check.name }}<span v-if="check.often_missed" class="chip">often missed</span
        ><span v-if="check.safety" class="chip safety">safety item</span
        ><span v-if="check.optional" class="chip">optional</span>
      </h2>
      <p class="how">
        {{ check.how }}
        <button type="button" class="link" :aria-expanded="more" @click="more = !more">
          {{ more ? 'Less' : 'Why, limits, tools' }}
        </button>
      </p>
      <p v-if="before" class="before">
        Last time, {{ date(before.day) }}: <b>{{ before.shown }}</b>
      </p>
      <div v-if="more" class="more">
        <p v-if="check.why"><b>Why.</b> {{ check.why }}</p>
        <p v-if="limits.length"><b>Limits.</b> {{ limits.join('; ') }}. Check the operator’s manual.</p>
        <p v-for="way in check.ways" :key="way"><b>The shop’s way.</b> {{ way }}</p>
        <p v-if="check.tools.length"><b>Tools.</b> {{ check.tools.join(', ') }}.</p>
        <p v-for="caution in posture?.cautions" :key="caution"><b>Care.</b> {{ caution }}</p>
      </div>
      <p class="care">
        <svg viewBox="0 0 16 16" width="15" height="15" aria-hidden="true"><path d="M8 1.5v8M8 12.4v1.8" /></svg
        ><span
          ><b>{{ postureName }}{{ held ? ', confirmed' : '' }}.</b>
          {{ [posture?.lock ? posture.lock + '.' : '', ...check.hazards].join(' ') }}</span
        >
      </p>
    </div>

    <div v-if="!readOnly || check.drawing" class="work">
      <form
        v-if="!readOnly"
        class="ask"
        :class="{ choosing: entry.isChoice.value && !entry.notSeen.value }"
        autocomplete="off"
        data-kept
        @submit.prevent
      >
        <label class="where" for="reading" aria-live="polite">{{ entry.label.value }}</label>
        <div v-if="check.feelers.length && !entry.notSeen.value" class="feelers" role="radiogroup" aria-label="Feeler used">
          <button
            v-for="name in check.feelers"
            :key="name"
            type="button"
            role="radio"
            :aria-checked="entry.feeler.value === name"
            :class="{ on: entry.feeler.value === name }"
            @click="entry.feeler.value = name"
          >
            {{ name }}
          </button>
        </div>
        <div class="fieldline">
          <span v-for="(value, i) in entry.done.value" :key="i" class="done">{{ value }}</span>
          <InputText
            id="reading"
            ref="field"
            :maxlength="check.kind === 'note' ? 500 : undefined"
            v-model="entry.text.value"
            class="field"
            :class="{ long: entry.notSeen.value || check.kind === 'note' || check.kind === 'interval' }"
            autocapitalize="none"
            spellcheck="false"
            :inputmode="inputmode"
            :aria-label="fieldName"
            :placeholder="placeholder"
            :invalid="!!entry.problem.value"
            aria-describedby="entry-problem"
            @keydown="keys"
            @paste="paste"
          />
          <span v-if="unit" class="unit">{{ unit }}</span>
          <Button v-if="!entry.isChoice.value || entry.notSeen.value" class="enter" label="Enter" @click="entry.enter" />
        </div>
        <LooksRow v-if="faults.length && !entry.notSeen.value" :looks="faults" label="What is counted, and what is not" />
        <p id="entry-problem" class="problem" role="alert">{{ entry.hint.value || entry.problem.value }}</p>
        <ChoiceList
          v-if="entry.notSeen.value"
          :choices="NOT_SEEN_REASONS.map((reason) => ({ key: reason, name: reason }))"
          @choose="(reason) => entry.record({ state: 'not-seen', reason })"
        />
        <ChoiceList
          v-else-if="entry.isChoice.value"
          :choices="check.options"
          :look="check.look"
          :chosen="entry.place.value?.choice"
          @choose="entry.choose"
        />
      </form>
      <figure v-if="check.drawing" class="picture"><DrawingOf v-if="drawing" :drawing="drawing" /></figure>
      <PasteSheet :entry="entry" :unit="unit" />
      <div v-if="entry.question.value || detour" class="question">
        <p v-if="ask"><SeverityMark severity="asked" wordless /> {{ ask.ask }}</p>
        <Button v-if="ask?.instead" :label="`Use ${ask.instead}`" @click="use(ask.instead)" />
        <Button v-if="ask" severity="secondary" :label="`Keep ${ask.shown} (y)`" @click="entry.stand()" />
        <Button v-if="entry.splitting.value" severity="secondary" label="Two figures (s)" @click="entry.split()" />
        <span v-if="entry.splitting.value">{{ splitWords }}</span>
        <span v-if="detour" class="quiet"
          >Then on with {{ detour }}. <button type="button" class="link" @click="entry.hand.comeBack()">Now (Esc)</button></span
        >
      </div>
    </div>

    <slot name="verdict" />
    <slot />
    <KeyBar v-if="!readOnly" :keys="KEYS" />
    <details v-if="!readOnly && !entry.isChoice.value && ['measure', 'count'].includes(check.kind)" class="gauge">
      <summary>Simulated gauge</summary>
      <GaugePanel :walk-around="walkAround" :check="check.key" />
    </details>
  </section>
</template>

<style scoped src="./EntryPanel.css"></style>
