<script setup lang="ts">
/** The walk-around: map, the check in hand, its positions, and the parts it calls for. */
import Button from 'primevue/button'
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, Refused, write } from '@/api/client'
import { outbox } from '@/api/outbox'
import { useSession } from '@/app/session'
import WalkAroundHeader from '@/app/WalkAroundHeader.vue'
import MachineMap from '@/design/MachineMap.vue'
import { summed } from '@/design/severity'
import CheckList from './CheckList.vue'
import EntryPanel from './EntryPanel.vue'
import PartsTray from './PartsTray.vue'
import RowGrid from './RowGrid.vue'
import { useEntry, type Entry } from './useEntry'
import { at, useWalkAround } from './useWalkAround'

const props = defineProps<{ id: string }>()
const route = useRoute()
const router = useRouter()
const session = useSession()

const checkKey = ref('')
const panel = ref<{ focus: () => void } | null>(null)
const finishing = ref('')
const state = useWalkAround(props.id, { loaded: begin, refused: (check, position, body, problem) => entry.refused(check, position, body, problem) })
const entry: Entry = useEntry(props.id, state, checkKey, session.me?.units ?? 'mm', () => panel.value?.focus())
const data = state.data

const check = computed(() => entry.check.value)
const station = computed(() => data.value?.route.find((one) => one.key === check.value.station))
const checksHere = computed(() => data.value?.checks.filter((one) => one.station === check.value.station) ?? [])
const openPlaces = computed(() => summed(data.value?.stations ?? []).open)
const last = computed(() => {
  const [key, position] = (state.newest.value ?? '|').split('|') as [string, string]
  const place = key === check.value.key ? state.places.get(at(key, position)) : undefined
  return place && { place, label: data.value?.positions.find((one) => one.key === position)?.label ?? '' }
})

/** The first place nobody has looked at, or where the address says. */
function begin(): void {
  if (!data.value || checkKey.value) return
  const asked = data.value.checks.find((one) => one.key === route.query.check)
  const open = data.value.checks.find((one) => !one.optional && state.openCount(one) > 0)
  entry.select((asked ?? open ?? data.value.checks[0]!).key, asked && typeof route.query.at === 'string' ? route.query.at : undefined)
}

onMounted(state.load)

/** The address keeps the place: back goes to the check before, a reload comes back to the same position. */
watch([checkKey, entry.position], ([key, position], [before]) => {
  if (!key || (route.query.check === key && route.query.at === position)) return
  const to = { query: { check: key, at: position } }
  void (before && before !== key ? router.push(to) : router.replace(to))
})
watch(() => [route.query.check, route.query.at], ([key, position]) => {
  if (!data.value || typeof key !== 'string' || (key === checkKey.value && position === entry.position.value)) return
  entry.select(key, typeof position === 'string' ? position : undefined)
})
watch(state.newest, (key) => {
  const place = key ? state.places.get(key) : undefined
  if (place?.ask) entry.question(place.check, place.position)
})

function goStation(key: string): void {
  const there = data.value?.checks.filter((one) => one.station === key) ?? []
  const next = there.find((one) => !one.optional && state.openCount(one) > 0) ?? there[0]
  if (next) entry.select(next.key)
}

async function finish(): Promise<void> {
  finishing.value = ''
  // What arrives after the end would be refused: wait until the last reading is saved.
  if (outbox.of(props.id).length) return void (finishing.value = 'Some readings are not saved yet. Finish when they are.')
  try {
    await write(() => api.POST('/api/walk-arounds/{walk_around_id}/finish', { params: { path: { walk_around_id: props.id } } }))
    await router.push({ name: 'findings', params: { id: props.id } })
  } catch (error) {
    finishing.value = error instanceof Refused ? error.message : 'It could not be finished.'
  }
}
const sure = ref(false)
async function askFinish(): Promise<void> {
  if (openPlaces.value && !sure.value) {
    sure.value = true
    await nextTick()
    return
  }
  await finish()
}
</script>

<template>
  <p v-if="state.problem.value && !data" class="trouble" role="alert">{{ state.problem.value }} <Button label="Try again" severity="secondary" @click="state.load()" /></p>
  <p v-else-if="!data || !checkKey" class="trouble quiet" role="status">Reading the walk-around …</p>
  <template v-else>
    <WalkAroundHeader :id="id" :machine="data.machine" :walk-around="data.walk_around" />
    <MachineMap class="big-map" :stations="data.stations" :current="check.station" @go="goStation" />
    <div class="columns">
      <CheckList class="left" :station="station?.name ?? ''" :checks="checksHere" :current="check.key" :state="state" @go="(key) => entry.select(key)" />
      <div class="middle">
        <EntryPanel ref="panel" :key="check.key" :entry="entry" :check="check" :last="last" :station="station" :units="session.me?.units ?? 'mm'" :read-only="!data.may_record">
          <RowGrid :check="check" :positions="data.positions" :track-rows="data.machine.track_rows" :current="entry.position.value" :state="state" :problems="(position) => entry.problems.get(at(check.key, position)) ?? ''" @go="(position) => entry.select(check.key, position)" />
        </EntryPanel>
      </div>
      <div class="right">
        <PartsTray :parts="data.parts" :walk-around="id" />
        <div v-if="data.may_record" class="finish">
          <p v-if="sure" role="alert"><b>{{ openPlaces }} places are open.</b> Finished now, the walk-around is not complete, and the report says so.</p>
          <p v-if="finishing" class="problem" role="alert">{{ finishing }}</p>
          <Button severity="secondary" :label="sure ? 'Finish all the same' : 'Finish walk-around'" @click="askFinish" />
          <Button v-if="sure" text severity="secondary" label="Go on" @click="sure = false" />
        </div>
      </div>
    </div>
  </template>
</template>

<style scoped>
.trouble { padding: 40px 20px; }
.big-map { margin: 2px 14px 0; }
.columns { display: grid; grid-template-columns: 248px minmax(0, 1fr) 248px; gap: 20px; padding: 8px 20px 12px; border-top: 1px solid var(--line); }
.middle { min-width: 0; }
.right { display: grid; gap: 18px; align-content: start; min-width: 0; }
.finish { display: grid; gap: 6px; justify-items: start; }
.finish :deep(.p-button) { min-height: var(--target); }
.problem { color: var(--stop); font-weight: 600; }
@media (max-width: 1100px) { .columns { grid-template-columns: 200px minmax(0, 1fr); } .right { grid-column: 1 / -1; } }
@media (max-width: 700px) { .columns { grid-template-columns: minmax(0, 1fr); padding: 8px 12px; gap: 10px; } .big-map { margin: 0 8px; } }
</style>
