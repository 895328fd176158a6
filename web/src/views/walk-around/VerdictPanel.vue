<script setup lang="ts">
/**
 * What the server said: of the place in hand where it has been read, and of whatever was typed last, until the next verdict comes.
 */
import Button from '@/design/controls/button'
import { computed } from 'vue'
import type { Place } from '@/api/client'
import { moment } from '@/app/words'
import SeverityMark from '@/design/SeverityMark.vue'
import { WORDS, type Severity } from '@/design/severity'
import RecentVerdicts from './RecentVerdicts.vue'
import type { Entry } from './entry'
import { at, type WalkAroundState } from './useWalkAround'

const props = defineProps<{ entry: Entry; state: WalkAroundState; readOnly: boolean; gate: boolean }>()
const entry = props.entry
type Shown = { key: string; place: Place; label: string }

const keyHere = computed(() => at(entry.check.value.key, entry.position.value))
const { unjudged } = props.state
const here = computed<Shown | null>(() =>
  entry.place.value && !entry.question.value && !props.gate && !(unjudged.value && props.state.sending.value.has(keyHere.value))
    ? { key: keyHere.value, place: entry.place.value, label: entry.label.value }
    : null,
)
const last = computed(() => (unjudged.value ? null : props.state.verdicts.last.value))
/** In full: the place in hand, else the last verdict; the last one in a line of its own where the hand looks at another. */
const full = computed<Shown | null>(() => {
  const one = here.value ?? last.value
  if (!one) return null
  const [check] = one.key.split('|')
  return {
    ...one,
    label:
      !props.gate && check === entry.check.value.key && one.place.position !== 'all'
        ? one.label.replace(`${entry.check.value.name}, `, '').replace(/^./, (first) => first.toUpperCase())
        : one.label,
  }
})
const line = computed(() => (last.value && last.value.key !== full.value?.key ? last.value : null))
const severity = (place: Place): Severity => (place.ask ? 'asked' : (place.severity as Severity))
/** More than fit beside the sentence: they open with the reasons, so that the check in hand stands without scrolling. */
const many = computed(() => (full.value?.place.advice?.rows.length ?? 0) > 3 && !full.value?.place.advice?.done)
interface Said {
  first: string
  /** What a phone leaves to "Why?": the share left, the forecast. */
  then: string
  remedy: string
}
/** What the core says of the share left and of the season's end; whatever else it says stays seen. */
const AHEAD = /: [^:;]*of its wear left|; expected /
function said(place: Place): Said {
  if (place.ask) return { first: place.ask, then: '', remedy: '' }
  const cut = place.reason.search(AHEAD)
  const first = cut < 0 ? place.reason : place.reason.slice(0, cut)
  return { first, then: place.reason.slice(first.length), remedy: place.remedy }
}
const whole = computed(() => (full.value ? said(full.value.place) : undefined))
const short = computed(() => (line.value ? said(line.value.place) : undefined))
</script>

<template>
  <div class="verdicts">
    <p v-if="unjudged" class="line" role="status" aria-live="polite">
      <SeverityMark severity="open" :size="18" wordless />
      <span
        ><b>Kept, not judged yet.</b> {{ unjudged.about.what }}: <b>{{ unjudged.about.shown }}</b></span
      >
    </p>
    <p v-if="line" class="line" :class="severity(line.place)" role="status" aria-live="polite">
      <SeverityMark :severity="severity(line.place)" :size="18" wordless />
      <span
        ><b :class="`sev-${severity(line.place)}`">{{ WORDS[severity(line.place)] }}</b> <b>{{ line.label }}.</b>
        {{ short?.first }}<span class="on">{{ short?.then }}</span
        ><span v-if="short?.then" class="end">.</span> {{ short?.remedy }}</span
      >
    </p>
    <div
      v-if="full || !unjudged"
      class="verdict settle"
      :class="full ? severity(full.place) : ''"
      role="status"
      aria-live="polite"
    >
      <template v-if="full">
        <SeverityMark :severity="severity(full.place)" :size="24" wordless />
        <div class="said">
          <p>
            <b :class="`sev-${severity(full.place)}`">{{ WORDS[severity(full.place)] }}</b> <b>{{ full.label }}.</b>
            {{ whole?.first }}<span class="on">{{ whole?.then }}</span
            ><span v-if="whole?.then" class="end">.</span> {{ whole?.remedy }}
          </p>
          <p v-if="full.place.overtaken" class="overtaken">
            Overtaken: {{ full.place.overtaken.shown }} by {{ full.place.overtaken.by }}, {{ moment(full.place.overtaken.at) }}.
            What was typed last stands.
          </p>
          <div v-if="full.place.advice && !full.place.ask" class="advice">
            <dl v-if="!many" class="rows">
              <div v-for="row in full.place.advice.rows" :key="row.name">
                <dt>{{ row.name }}</dt>
                <dd><SeverityMark v-if="row.mark" :severity="row.mark as Severity" :size="14" /> {{ row.shown }}</dd>
              </div>
            </dl>
            <Button
              v-if="full.place.advice.done && !readOnly"
              size="small"
              class="did"
              :label="full.place.advice.done"
              @click="entry.followed(full.place)"
            />
          </div>
          <details v-if="(full.place.why.length || whole?.then) && !full.place.ask" :class="{ bare: !full.place.why.length }">
            <summary>{{ many ? 'Every way, and why' : 'Why?' }}</summary>
            <dl v-if="many" class="rows">
              <div v-for="row in full.place.advice?.rows" :key="row.name">
                <dt>{{ row.name }}</dt>
                <dd><SeverityMark v-if="row.mark" :severity="row.mark as Severity" :size="14" /> {{ row.shown }}</dd>
              </div>
            </dl>
            <p v-if="whole?.then" class="then">{{ full.place.reason }}</p>
            <ul>
              <li v-for="why in full.place.why" :key="why">{{ why }}</li>
            </ul>
          </details>
        </div>
      </template>
      <p v-else class="quiet">The verdict appears here as soon as a reading is entered.</p>
    </div>
    <RecentVerdicts v-if="!readOnly" class="narrow" :entry="entry" :state="state" />
  </div>
</template>

<style scoped>
.verdicts {
  display: grid;
  gap: 4px;
  min-width: 0;
}
.line {
  display: flex;
  gap: 8px;
  align-items: flex-start;
  padding: 2px 14px;
  border-left: 6px solid var(--line);
  line-height: 1.25;
}
.verdict {
  display: flex;
  gap: 12px;
  align-items: flex-start;
  min-height: 48px;
  padding: 4px 14px;
  border-left: 6px solid var(--line);
  background: var(--sunk);
  border-radius: var(--radius);
  font-size: 1.06rem;
  line-height: 1.3;
}
.said {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  flex: 1;
}
.said p {
  flex: 1 1 420px;
}
.said .overtaken {
  flex: 1 1 100%;
  font-style: italic;
}
.sound {
  border-color: var(--sound);
}
.watch {
  border-color: var(--watch);
}
.due {
  border-color: var(--due);
}
.stop {
  border-color: var(--stop);
}
.asked {
  border-color: var(--accent);
}
summary {
  display: inline-block;
  min-width: var(--target);
  padding: 11px 4px;
  margin: -11px -4px;
  color: var(--accent);
  font-weight: 600;
  cursor: pointer;
}
details ul {
  padding: 6px 0 0 1em;
  list-style: disc;
  font-size: 1rem;
}
.end,
.then,
.bare {
  display: none;
}
.rows {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 22px;
  margin: 2px 0;
}
.rows dt {
  color: var(--quiet);
  line-height: 1.2;
}
.rows dd {
  margin: 0;
  font-weight: 600;
  line-height: 1.25;
}
.advice {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 22px;
  align-items: center;
}
.did {
  min-height: var(--target);
}
@media (min-width: 1101px) {
  .narrow {
    display: none;
  }
}
@media (max-width: 700px) {
  .verdict {
    min-height: 0;
    padding: 4px 10px;
  }
  .line {
    padding: 2px 10px;
  }
  .said {
    display: block;
  }
  .said > p {
    display: inline;
    margin-right: 8px;
  }
  .on {
    display: none;
  }
  .end {
    display: inline;
  }
  .then {
    display: block;
  }
  details,
  .bare {
    display: inline;
  }
}
</style>
