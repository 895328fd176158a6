<script setup lang="ts">
/** What needs something done, worst first, and what was decided about it. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, onMounted, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import WalkAroundHeader from '@/app/WalkAroundHeader.vue'
import { counted } from '@/app/counted'
import Pager from '@/app/Pager.vue'
import { useSession } from '@/app/session'
import { useAsked } from '@/app/useAsked'
import { useAttempt } from '@/app/useAttempt'
import SeverityMark from '@/design/SeverityMark.vue'
import { WORDS, type Severity } from '@/design/severity'
import StillStanding from '@/app/StillStanding.vue'
import ShareLink from './ShareLink.vue'
import { ADVICE, money, percent } from '@/views/wear/figures'
import { useAhead } from './useAhead'
import { DECIDED, keyOf, useDecisions, type Choice } from './useDecisions'
import WhileApart from './WhileApart.vue'

const session = useSession()
const mayShare = computed(() => session.may('share a report'))
type Finding = Schemas['FindingOut']
const props = defineProps<{ id: string }>()
const data = ref<Schemas['FindingsOut'] | null>(null)

const { writing, refused, decide, onItsWay } = useDecisions(props.id, data)

const { asked, query } = useAsked('search', 'severity', 'decision', 'station', 'order')
const counts = computed(() => data.value?.sum ?? { all: 0, open: 0 })

const at = useAttempt('The findings could not be read.')
const load = (): Promise<boolean> =>
  at.read(async () => {
    const params = { path: { walk_around_id: props.id }, query: query.value }
    data.value = await answer(api.GET('/api/walk-arounds/{walk_around_id}/findings', { params }))
  })
watch(query, load)

const opened = ref<string[]>([])
const liesOpen = (finding: Finding): boolean => opened.value.some((one) => one.endsWith(`, ${finding.label.toLowerCase()}`))
/** What lies open follows from what is renewed: it is asked for again when a decision changes. */
const decided = computed(
  () => data.value?.groups.flatMap((group) => group.findings.map((finding) => finding.decision)).join() ?? '',
)

const undecided = (group: Schemas['FindingGroupOut']): Finding[] =>
  group.findings.filter((finding) => finding.decision === 'open')

function spoken(finding: Finding): string {
  const more = finding.until || finding.decision_reason
  return `${DECIDED[finding.decision]}${more ? ': ' + more : ''}`
}

const ahead = useAhead()
onMounted(async () => {
  if (await load()) await ahead.load(data.value?.foreseen ?? [])
})
</script>

<template>
  <p v-if="at.problem" class="trouble" role="alert">
    {{ at.problem }} <Button label="Try again" severity="secondary" @click="load" />
  </p>
  <p v-if="!data && !at.problem" class="trouble quiet" role="status">Reading the findings …</p>
  <template v-if="data">
    <WalkAroundHeader :id="id" :machine="data.machine" :walk-around="data.walk_around" />
    <section class="page">
      <h2>
        {{ counted(counts.all, 'finding') }},
        <span class="quiet">{{
          counts.open ? `${counts.open} not decided yet` : counts.all ? 'all decided' : 'in this walk-around'
        }}</span>
      </h2>
      <StillStanding :before="data.before" to="findings" />
      <p v-if="!counts.all" class="quiet">
        {{
          data.seen
            ? `Nothing found so far that needs doing, at ${data.seen} of ${counted(data.places, 'place')} that were seen.`
            : 'Nothing has been looked at yet.'
        }}
      </p>
      <div v-if="counts.all > 8" class="asks" role="search" aria-label="Findings">
        <InputText v-model="asked.search" aria-label="Find a finding" placeholder="Row, check, reason" maxlength="80" />
        <select v-model="asked.severity" aria-label="Severity">
          <option value="">Every severity</option>
          <option v-for="one in ['stop', 'due', 'watch'] as const" :key="one" :value="one">{{ WORDS[one] }}</option>
        </select>
        <select v-model="asked.decision" aria-label="Decision">
          <option value="">Decided or not</option>
          <option value="open">Not decided yet</option>
          <option value="decided">Decided</option>
        </select>
        <select v-model="asked.station" aria-label="Station">
          <option value="">Every station</option>
          <option v-for="one in data.found_at" :key="one.key" :value="one.key">{{ one.name }}</option>
        </select>
        <select v-model="asked.order" aria-label="Order">
          <option value="">Worst first</option>
          <option value="station">As it is walked around</option>
        </select>
      </div>
      <p v-if="counts.all && !data.groups.length" class="quiet">No finding is like that.</p>
      <article v-for="group in data.groups" :key="group.check" class="group" :aria-label="group.name">
        <header>
          <SeverityMark :severity="group.severity as Severity" :size="22" />
          <h3>{{ group.name }}</h3>
          <span v-if="group.station !== group.name" class="quiet">{{ group.station }}</span>
          <span v-if="data.may_decide && undecided(group).length > 1" class="all">
            <Button
              size="small"
              severity="secondary"
              :label="`Do all ${undecided(group).length} that are open`"
              @click="decide(group, undecided(group), 'do')"
            />
          </span>
        </header>
        <p class="remedy">
          {{ group.findings[0]?.place.remedy }} <span v-if="group.why">If it waits: {{ group.why }}</span>
        </p>
        <p v-if="undecided(group).length > 1 && refused[keyOf(group, undecided(group))]" class="problem" role="alert">
          {{ refused[keyOf(group, undecided(group))] }}
        </p>
        <ul>
          <li v-for="finding in group.findings" :key="finding.place.position" :class="finding.decision">
            <p class="where">
              <SeverityMark :severity="finding.place.severity as Severity" wordless /> <b>{{ finding.label }}</b><small
                :class="`sev-${finding.place.severity}`"
                >{{ WORDS[finding.place.severity as Severity] }}, {{ finding.place.action }}</small
              >
            </p>
            <div class="reason">
              <p :title="finding.place.shown_other">
                {{ finding.place.reason
                }}<small v-if="finding.place.confirmed" class="quiet"> Confirmed by {{ finding.place.by }}.</small>
              </p>
              <p
                v-for="one in [ahead.found.value.get(`${group.check} ${finding.place.position}`)].filter(
                  (beside) => beside && !finding.place.fitted,
                )"
                :key="one!.machine"
                class="ahead"
              >
                <template v-if="group.safety">A safety item: put right whatever it costs. </template>
                <template v-else-if="finding.place.severity === 'watch' && one!.place.cost_wait !== null"
                  >Waiting risks <b>{{ money(one!.place.cost_wait, one!.currency) }}</b><template
                    v-if="one!.place.break_even !== null"
                    >; renewing now throws away {{ money(one!.place.cost_now!, one!.currency) }} and pays from a chance of
                    {{ percent(one!.place.break_even) }}. By the figures:
                    <b>{{ ADVICE[one!.place.advice]?.toLowerCase() }}</b></template
                  >.
                </template>
                <RouterLink
                  :to="{
                    name: 'wear',
                    params: { id: one!.machine },
                    query: { check: group.check, at: finding.place.position },
                  }"
                  :aria-label="`How it wears: ${group.name}, ${finding.label}`"
                  >How it wears</RouterLink
                >
              </p>
              <p v-if="finding.place.fitted">
                <b>{{ finding.place.fitted }}</b>
              </p>
              <p v-if="finding.place.note">
                <i>{{ finding.place.note }}</i>
              </p>
              <p v-if="finding.parts.length" class="quiet">
                Parts: {{ finding.parts.join(', ') }} <a v-if="liesOpen(finding)" href="#apart">While this is apart, also …</a>
              </p>
              <p v-if="finding.photos.length" class="pictures">
                <a
                  v-for="photo in finding.photos"
                  :key="photo.uuid"
                  :href="`/api/walk-arounds/${id}/photos/${photo.uuid}`"
                  target="_blank"
                  rel="noopener"
                  ><img
                    :src="`/api/walk-arounds/${id}/photos/${photo.uuid}`"
                    :alt="photo.caption || 'Picture'"
                    :title="photo.caption"
                    loading="lazy"
                /></a>
              </p>
            </div>
            <div class="decision">
              <p v-if="finding.decision !== 'open'">
                <b>{{ spoken(finding) }}</b> <small class="quiet">{{ finding.decided_by }}</small>
                <button v-if="data.may_decide" type="button" class="link" @click="decide(group, [finding], 'open')">
                  change
                </button>
              </p>
              <div v-else-if="data.may_decide" class="buttons" role="group" :aria-label="`Decide ${finding.label}`">
                <Button size="small" label="Do it" @click="decide(group, [finding], 'do')" />
                <template v-if="finding.place.severity !== 'stop'">
                  <Button size="small" severity="secondary" label="Wait until" @click="decide(group, [finding], 'wait')" />
                  <Button size="small" severity="secondary" label="Decline" @click="decide(group, [finding], 'decline')" />
                </template>
              </div>
              <p v-else class="quiet">Not decided</p>
              <p v-if="onItsWay(group, finding)" role="status">
                <b>{{ onItsWay(group, finding) }}</b> <small class="quiet">on its way to the server</small>
              </p>
              <p v-if="refused[keyOf(group, [finding])]" class="problem" role="alert">
                {{ refused[keyOf(group, [finding])] }}
              </p>
              <form
                v-if="writing.key === keyOf(group, [finding])"
                class="words"
                @submit.prevent="decide(group, [finding], writing.choice as Choice)"
              >
                <label :for="`words-${finding.place.position}`">{{
                  writing.choice === 'wait' ? 'Until when, or what' : 'Why not'
                }}</label>
                <InputText
                  :id="`words-${finding.place.position}`"
                  v-model="writing.text"
                  :maxlength="writing.choice === 'wait' ? 80 : 300"
                  v-focus
                  :invalid="!!writing.problem"
                />
                <p v-if="writing.problem" class="problem" role="alert">{{ writing.problem }}</p>
                <Button type="submit" size="small" :label="writing.choice === 'wait' ? 'Wait' : 'Decline'" />
                <Button size="small" text severity="secondary" label="Cancel" data-out @click="writing.key = ''" />
              </form>
            </div>
          </li>
        </ul>
      </article>
      <Pager v-model="asked.page" :page="data.page" one="kind of finding" many="kinds of findings" />
      <ShareLink v-if="mayShare" :id="id" />
      <p v-else><a :href="`/walk-arounds/${id}/owner`">In plain words</a></p>
      <WhileApart :id="id" :key="decided" @found="(names) => (opened = names)" />
      <template v-if="data.not_seen.length">
        <h2>Not seen</h2>
        <ul class="unseen-list">
          <li v-for="item in data.not_seen" :key="item.check + item.label">
            <SeverityMark severity="not-seen" /> <b>{{ item.check }}, {{ item.label.toLowerCase() }}.</b> {{ item.reason }}
            <span class="quiet">{{ item.by }}</span>
          </li>
        </ul>
      </template>
    </section>
  </template>
</template>

<style scoped src="./Findings.css"></style>
