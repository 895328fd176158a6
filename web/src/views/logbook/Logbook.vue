<script setup lang="ts">
/** Everything that happened to one machine, the newest first; what comes round, what was put away, and where its counter stands. */
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { counted } from '@/app/counted'
import { useSession } from '@/app/session'
import { date } from '@/app/words'
import MachineTabs from '@/views/machine/MachineTabs.vue'
import Pager from '@/app/Pager.vue'
import { useAsked } from '@/app/useAsked'
import { useAttempt } from '@/app/useAttempt'
import Counters from './Counters.vue'
import NoteForm from './NoteForm.vue'
import PutAway from './PutAway.vue'
import Services from './Services.vue'

const props = defineProps<{ id: string }>()
const session = useSession()
const machine = Number(props.id)
const data = ref<Schemas['LogbookOut'] | null>(null)
const { asked, query } = useAsked('search', 'kinds', 'station', 'order')
const kinds = computed(() => asked.kinds.split(',').filter(Boolean))
const services = ref<{ load: () => Promise<boolean> } | null>(null)
const at = useAttempt('The logbook could not be read.')
const mayWrite = computed(() => !session.onlyOwns)

const load = (): Promise<boolean> =>
  at.read(async () => {
    data.value = await answer(
      api.GET('/api/logbook/machines/{machine_id}/logbook', {
        params: { path: { machine_id: machine }, query: { ...query.value, kinds: undefined, kind: kinds.value } },
      }),
    )
  })
watch(query, load, { immediate: true })
function toggle(kind: string): void {
  const others = kinds.value.filter((one) => one !== kind)
  asked.kinds = (others.length < kinds.value.length ? others : [...others, kind]).join(',')
}
const kept = (): void => void Promise.all([load(), services.value?.load()])
const days = computed(() => {
  const groups: { day: string; entries: Schemas['EntryOut'][] }[] = []
  for (const entry of data.value?.entries ?? []) {
    const day = date(entry.at)
    if (groups.at(-1)?.day !== day) groups.push({ day, entries: [] })
    groups.at(-1)!.entries.push(entry)
  }
  return groups
})
const inside = (link: string): boolean => link.startsWith('/')
const print = computed(
  () =>
    `/machines/${props.id}/logbook/print?${new URLSearchParams([...kinds.value.map((kind) => ['kind', kind]), ['search', asked.search]])}`,
)
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <p v-if="at.problem" class="trouble" role="alert">
      {{ at.problem }} <Button label="Try again" severity="secondary" @click="load" />
    </p>
    <p v-if="!data && !at.problem" class="quiet" role="status">Opening the logbook …</p>
    <template v-if="data">
      <header class="tools">
        <h1 class="grow">{{ data.machine }}</h1>
        <a :href="print">Print</a> <a :href="`/machines/${id}/logbook.csv`">CSV</a>
      </header>
      <div class="columns">
        <div class="log">
          <div class="asks">
            <InputText
              v-model="asked.search"
              class="grow"
              type="search"
              aria-label="Search the logbook"
              placeholder="Search: row 5, bearing, D12-4001, Ines …"
              maxlength="80"
            />
            <select v-model="asked.station" aria-label="Station">
              <option value="">Every station</option>
              <option v-for="one in data.stations" :key="one.key" :value="one.name">{{ one.name }}</option>
            </select>
            <select v-model="asked.order" aria-label="Order">
              <option value="">Newest first</option>
              <option value="oldest">Oldest first</option>
            </select>
            <span class="quiet" role="status">{{ counted(data.page.total, 'entry', 'entries') }}</span>
          </div>
          <p class="kinds" role="group" aria-label="Kinds of entries">
            <button
              v-for="(name, kind) in data.kinds"
              :key="kind"
              type="button"
              :class="{ on: kinds.includes(String(kind)) }"
              :aria-pressed="kinds.includes(String(kind))"
              @click="toggle(String(kind))"
            >
              {{ name }}
            </button>
          </p>
          <p v-if="!data.entries.length" class="quiet">Nothing like that is on record.</p>
          <section v-for="group in days" :key="group.day" :aria-label="group.day">
            <h2>
              {{ group.day }} <span v-if="group.entries[0]?.counter" class="quiet">{{ group.entries[0].counter }}</span>
            </h2>
            <ul>
              <li v-for="(entry, i) in group.entries" :key="i" :class="entry.kind">
                <span class="kind">{{ data.kinds[entry.kind] }}</span>
                <div>
                  <p>
                    <RouterLink v-if="inside(entry.link)" :to="entry.link"
                      ><b>{{ entry.title }}</b></RouterLink
                    ><b v-else>{{ entry.title }}</b>
                    <span v-if="entry.station && !entry.title.startsWith(entry.station)" class="quiet">{{
                      entry.station
                    }}</span>
                    <span class="quiet by">{{ entry.by }}</span>
                  </p>
                  <details v-if="entry.kind === 'reading' && entry.text">
                    <summary>{{ entry.text.split('\n')[0] }}</summary>
                    <p v-for="line in entry.text.split('\n')" :key="line">{{ line }}</p>
                  </details>
                  <p v-else-if="entry.text" class="quiet">{{ entry.text }}</p>
                  <p v-if="entry.photos.length" class="pictures">
                    <a v-for="photo in entry.photos" :key="photo" :href="photo" target="_blank" rel="noopener"
                      ><img :src="photo" :alt="`Picture: ${entry.title}`" loading="lazy"
                    /></a>
                  </p>
                </div>
              </li>
            </ul>
          </section>
          <Pager v-model="asked.page" :page="data.page" one="entry" many="entries" />
        </div>
        <aside class="beside">
          <NoteForm v-if="mayWrite" :machine="machine" :stations="data.stations" @kept="load" />
          <Services ref="services" :machine="machine" @kept="load" />
          <PutAway :machine="machine" @kept="load" />
          <Counters :machine="machine" :may-record="mayWrite" @kept="kept" />
        </aside>
      </div>
    </template>
  </section>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  gap: 24px;
  align-items: start;
}
.log,
.beside {
  display: grid;
  gap: 12px;
  align-content: start;
  min-width: 0;
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.kinds button {
  min-height: 40px;
  padding: 0 12px;
  border: 1px solid var(--line);
  border-radius: 20px;
  background: var(--surface);
  cursor: pointer;
}
.kinds button.on {
  border-color: var(--accent);
  background: var(--accent-soft);
  font-weight: 600;
  box-shadow: inset 0 0 0 1px var(--accent);
}
h2 {
  margin-top: 6px;
  padding-bottom: 2px;
  border-bottom: 2px solid var(--line);
}
h2 .quiet {
  font-weight: 400;
  font-size: 1rem;
}
li {
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr);
  gap: 12px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
  line-height: 1.3;
}
.kind {
  color: var(--quiet);
  font-size: 0.95rem;
}
.note .kind {
  color: var(--due);
  font-weight: 600;
}
.part .kind {
  color: var(--sound);
  font-weight: 600;
}
summary {
  min-height: 28px;
  cursor: pointer;
  color: var(--quiet);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
details[open] summary {
  display: none;
}
.pictures img {
  display: block;
  width: 120px;
  height: 80px;
  object-fit: cover;
  border: 1px solid var(--line);
  border-radius: 6px;
  margin-top: 4px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  li {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
  .beside {
    order: -1;
  }
}
</style>
