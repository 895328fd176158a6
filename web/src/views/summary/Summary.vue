<script setup lang="ts">
/** Before the end: what is missing, what was passed over, what is often missed; then finish or hand over. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, onMounted, reactive, ref } from 'vue'
import { answer, api, Refused, type Schemas } from '@/api/client'
import { outbox } from '@/api/outbox'
import { usePost } from '@/api/usePost'
import { newUuid } from '@/api/uuid'
import { counted } from '@/app/counted'
import { useOnward } from '@/app/useOnward'
import { useSession } from '@/app/session'
import WalkAroundHeader from '@/app/WalkAroundHeader.vue'
import MachineMap from '@/design/MachineMap.vue'
import EndForm from './EndForm.vue'
import ReadingsFile from './ReadingsFile.vue'
import SeverityMark from '@/design/SeverityMark.vue'

const props = defineProps<{ id: string }>()
const onward = useOnward()
const session = useSession()
const data = ref<Schemas['SummaryOut'] | null>(null)
const people = ref<Schemas['PersonOut'][]>([])
const problem = ref('')
const sure = ref(false)
const path = { params: { path: { walk_around_id: props.id } } }
const open = computed(() => data.value?.holes.reduce((sum, hole) => sum + hole.count, 0) ?? 0)
const inspects = computed(() => session.may('finish a walk-around'))
const missed = computed(() => data.value?.missed.filter((one) => one.done < one.total) ?? [])
const seenMissed = computed(() => (data.value?.missed ?? []).filter((one) => one.done === one.total).map((one) => one.name))
const stations = computed(() => {
  const names = [...new Set(data.value?.holes.map((hole) => hole.station) ?? [])]
  return names.map((name) => ({ name, holes: data.value!.holes.filter((hole) => hole.station === name) }))
})

async function load(): Promise<void> {
  try {
    data.value = await answer(api.GET('/api/walk-arounds/{walk_around_id}/summary', path))
    problem.value = ''
    if (data.value.may_record)
      people.value = (
        await answer(api.GET('/api/machines/{machine_id}/start', { params: { path: { machine_id: data.value.machine.id } } }))
      ).people
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'The summary could not be read.'
  }
}
onMounted(load)

const post = usePost()
const about = (what: string) => ({ what, machine: data.value?.machine.name })
const asked = computed(() => data.value?.holes.filter((hole) => hole.asked).reduce((sum, hole) => sum + hole.count, 0) ?? 0)
const unsent = computed(() => outbox.of(props.id).length)
const refused = computed(() => outbox.refusedAt(props.id).length)
/** What stands in the way of the end: none of it may be lost by finishing. */
const inTheWay = computed(() => {
  if (unsent.value)
    return `${counted(unsent.value, 'entry of this walk-around is', 'entries of this walk-around are')} still on the way. Finish when all is saved.`
  if (refused.value) return `${counted(refused.value, 'reading')} could not be taken. Put that right first.`
  if (asked.value)
    return `${counted(asked.value, 'reading waits', 'readings wait')} for an answer. Look at ${asked.value === 1 ? 'it' : 'them'} first.`
  return ''
})
let finishing = newUuid()

async function finish(): Promise<void> {
  problem.value = inTheWay.value
  if (problem.value) return
  if (!data.value?.complete && !sure.value) return void (sure.value = true)
  try {
    await post(
      '/api/walk-arounds/{walk_around_id}/finish',
      { walk_around_id: props.id },
      { uuid: finishing, reason: '' },
      about('Finish the walk-around'),
    )
    finishing = newUuid()
    await onward({ name: 'findings', params: { id: props.id } })
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'It could not be finished.'
  }
}

/** Opening again and discarding want a reason; bringing back is the opposite of discarding. */
const ending = reactive({ way: '' as '' | 'reopen' | 'discard', reason: '', problem: '', uuid: newUuid() })
const WAYS = {
  reopen: { ask: 'Why is it opened again? It becomes a new version, and its report says so.', label: 'Open again' },
  discard: {
    ask: 'Why is it discarded? It leaves the lists, stays in the logbook, and can be brought back.',
    label: 'Discard',
  },
}
async function end(way: 'reopen' | 'discard' | 'restore'): Promise<void> {
  try {
    const words = {
      reopen: 'Open the walk-around again',
      discard: 'Discard the walk-around',
      restore: 'Bring the walk-around back',
    }[way]
    await post(
      `/api/walk-arounds/{walk_around_id}/${way}`,
      { walk_around_id: props.id },
      { uuid: ending.uuid, reason: ending.reason },
      about(words),
    )
    Object.assign(ending, { way: '', reason: '', problem: '', uuid: newUuid() })
    await load()
  } catch (error) {
    ending.problem = error instanceof Refused ? error.message : 'That could not be done.'
  }
}

const over = reactive({ to: 0, note: '', uuid: newUuid(), done: '' })
async function handOver(): Promise<void> {
  try {
    const taker = people.value.find((one) => one.id === over.to)?.name ?? ''
    await post(
      '/api/walk-arounds/{walk_around_id}/hand-over',
      { walk_around_id: props.id },
      { uuid: over.uuid, to: over.to, note: over.note },
      { ...about(`Hand over to ${taker}`), shown: over.note },
    )
    over.done = `Handed over to ${taker}. Locks are to be confirmed again.`
    Object.assign(over, { note: '', uuid: newUuid() })
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'It could not be handed over.'
  }
}
</script>

<template>
  <p v-if="!data" class="trouble" role="status">
    {{ problem || 'Adding up …' }} <Button v-if="problem" label="Try again" severity="secondary" @click="load" />
  </p>
  <template v-else>
    <WalkAroundHeader :id="id" :machine="data.machine" :walk-around="data.walk_around" />
    <MachineMap class="map" :stations="data.stations" small />
    <section class="page">
      <div class="left">
        <h2 class="verdict" :class="{ holes: !data.complete }">
          {{
            data.complete
              ? 'Complete: every place has been seen.'
              : open
                ? `Not complete: ${counted(open, 'place is', 'places are')} open` +
                  (data.not_seen.length ? `, ${data.not_seen.length} not seen.` : '.')
                : `Not complete: ${data.not_seen.length} not seen.`
          }}
        </h2>
        <section v-if="data.stops.length" class="stops" role="alert">
          <p v-for="stop in data.stops" :key="stop.place.check + stop.place.position">
            <SeverityMark severity="stop" :size="20" wordless />
            <b>Stop. {{ stop.name }}{{ stop.place.position === 'all' ? '' : ', ' + stop.label.toLowerCase() }}:</b>
            {{ stop.place.reason }}
            <RouterLink
              :to="{ name: 'walk-around', params: { id }, query: { check: stop.place.check, at: stop.place.position } }"
              >Read again</RouterLink
            >
          </p>
        </section>
        <section v-if="data.missed.length" aria-labelledby="missed">
          <h3 id="missed">Often missed</h3>
          <p v-if="seenMissed.length" class="quiet">Seen: {{ seenMissed.join(', ') }}.</p>
          <ul>
            <li v-for="one in missed" :key="one.check">
              <RouterLink :to="{ name: 'walk-around', params: { id }, query: { check: one.check } }">{{ one.name }}</RouterLink>
              <span class="quiet">{{ one.station }}, {{ one.done }} of {{ one.total }}</span>
            </li>
          </ul>
        </section>
        <section v-for="station in stations" :key="station.name">
          <h3>{{ station.name }}</h3>
          <ul>
            <li v-for="hole in station.holes" :key="hole.check + hole.asked">
              <SeverityMark :severity="hole.asked ? 'asked' : 'open'" />
              <RouterLink :to="{ name: 'walk-around', params: { id }, query: { check: hole.check } }">{{
                hole.name
              }}</RouterLink>
              <span class="quiet"
                >{{ hole.places === 'whole machine' ? '' : hole.places }}{{ hole.asked ? ' waits for an answer' : '' }}</span
              >
            </li>
          </ul>
        </section>
        <section v-if="data.not_seen.length">
          <h3>Not seen</h3>
          <ul>
            <li v-for="one in data.not_seen" :key="one.check + one.label">
              <SeverityMark severity="not-seen" /> <b>{{ one.check }}, {{ one.label.toLowerCase() }}.</b> {{ one.reason }}
              <span class="quiet">{{ one.by }}</span>
            </li>
          </ul>
        </section>
      </div>
      <aside v-if="data.may_record" class="right">
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <p v-if="sure" role="alert">
          <b>{{ counted(open, 'place is', 'places are') }} open.</b> Finished now, the walk-around is not complete, and the
          report says so.
        </p>
        <Button class="go" :label="sure ? 'Finish all the same' : 'Finish walk-around'" @click="finish" />
        <Button v-if="sure" text severity="secondary" label="Go on" @click="sure = false" />
        <form class="over" @submit.prevent="handOver">
          <h3>Hand over</h3>
          <p class="quiet">
            At work: {{ data.people.map((one) => one.name).join(', ') }}. Anybody of the shop may join on another device;
            nobody’s readings are lost.
          </p>
          <label for="over-to">To</label>
          <select id="over-to" v-model="over.to">
            <option :value="0" disabled>Who</option>
            <option v-for="one in people.filter((person) => person.name !== session.me?.name)" :key="one.id" :value="one.id">
              {{ one.name }}
            </option>
          </select>
          <label for="over-note">What to know</label>
          <InputText id="over-note" v-model="over.note" maxlength="500" />
          <Button type="submit" severity="secondary" label="Hand over" :disabled="!over.to" />
          <p v-if="over.done" role="status">{{ over.done }}</p>
        </form>
        <ReadingsFile :id="id" :may-record="data.may_record" @taken="load" />
        <EndForm
          v-if="ending.way"
          v-model:reason="ending.reason"
          :ask="WAYS[ending.way].ask"
          :label="WAYS[ending.way].label"
          :problem="ending.problem"
          @submit="end(ending.way)"
          @cancel="ending.way = ''"
        />
        <Button v-else text severity="secondary" label="Begun by mistake" @click="ending.way = 'discard'" />
      </aside>
      <aside v-else class="right">
        <p v-if="data.walk_around.discarded">
          <b>Discarded.</b> It stands in no list any more; what was read stays in the logbook.
        </p>
        <p v-else-if="data.walk_around.finished_at">
          <b>Finished{{ data.walk_around.version > 1 ? `, version ${data.walk_around.version}` : '' }}.</b> What is read now
          belongs to a new walk-around, or to a new version of this one.
        </p>
        <template v-if="inspects">
          <EndForm
            v-if="ending.way"
            v-model:reason="ending.reason"
            :ask="WAYS[ending.way].ask"
            :label="WAYS[ending.way].label"
            :problem="ending.problem"
            @submit="end(ending.way)"
            @cancel="ending.way = ''"
          />
          <Button v-else-if="data.walk_around.discarded" severity="secondary" label="Bring it back" @click="end('restore')" />
          <Button v-else severity="secondary" label="Open again" @click="ending.way = 'reopen'" />
          <p v-if="ending.problem && !ending.way" class="problem" role="alert">{{ ending.problem }}</p>
        </template>
        <ReadingsFile :id="id" :may-record="false" />
      </aside>
    </section>
  </template>
</template>

<style scoped src="./Summary.css"></style>
