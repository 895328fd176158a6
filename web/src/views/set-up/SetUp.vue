<script setup lang="ts">
/** How one machine is set up: what is fitted, since when, and what the crop that comes would have otherwise. */
import Button from '@/design/controls/button'
import { computed, onMounted, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { CROP_NAMES } from '@/api/vocabulary'
import { counted } from '@/app/counted'
import { date } from '@/app/words'
import MachineTabs from '@/views/machine/MachineTabs.vue'
import { useAttempt } from '@/app/useAttempt'
import { differs, standing, type Item } from './setUp'

const props = defineProps<{ id: string }>()
const data = ref<Schemas['SetUpOut'] | null>(null)
const crop = ref('')
const opened = ref('')
const at = useAttempt('The set-up could not be read.')
const load = (): Promise<boolean> =>
  at.read(
    async () =>
      void (data.value = await answer(
        api.GET('/api/machines/{machine_id}/set-up', { params: { path: { machine_id: Number(props.id) } } }),
      )),
  )
onMounted(load)

const stations = computed(() => {
  const groups: { name: string; items: Item[] }[] = []
  for (const item of data.value?.items ?? []) {
    if (groups.at(-1)?.name !== item.station) groups.push({ name: item.station, items: [] })
    groups.at(-1)!.items.push(item)
  }
  return groups
})
const toChange = computed(() => (data.value?.items ?? []).filter((item) => differs(item, crop.value) === 'change').length)
const unknown = computed(() => (data.value?.items ?? []).filter((item) => !item.places.length).length)
/** How often it was found otherwise than before; first readings are none. */
const moved = (item: Item): number => item.changes.filter((one) => one.before).length
const wanted = (item: Item): string => item.wants.find((one) => one.crop === crop.value)?.names.join(' or ') ?? ''
</script>

<template>
  <MachineTabs :id="id" />
  <section class="desk">
    <p v-if="at.problem" class="trouble" role="alert">
      {{ at.problem }} <Button label="Try again" severity="secondary" @click="load" />
    </p>
    <p v-if="!data && !at.problem" class="quiet" role="status">Opening the set-up …</p>
    <template v-if="data">
      <header class="tools">
        <h1 class="grow">{{ data.machine }}</h1>
        <label
          >Crop that comes
          <select v-model="crop">
            <option value="">None in mind</option>
            <option v-for="(name, key) in CROP_NAMES" :key="key" :value="key">{{ name }}</option>
          </select></label
        >
      </header>
      <p class="sum" aria-live="polite">
        <template v-if="crop"
          ><b
            >{{ counted(toChange, 'item stands', 'items stand') }} otherwise than
            {{ CROP_NAMES[crop as keyof typeof CROP_NAMES] }} would have it.</b
          ></template
        >
        <template v-if="unknown"> {{ counted(unknown, 'item was', 'items were') }} never recorded.</template>
        <template v-if="!crop && !unknown">Everything here was recorded in a walk-around.</template>
      </p>
      <p v-if="!data.items.length" class="quiet">Nothing on this machine differs by crop.</p>
      <section v-for="station in stations" :key="station.name" class="card">
        <h2>{{ station.name }}</h2>
        <ul class="items">
          <li v-for="item in station.items" :key="item.check" :class="differs(item, crop)">
            <div class="what">
              <b>{{ item.name }}</b>
              <span v-for="stand in standing(item)" :key="stand.shown" class="state"
                >{{ stand.shown }}<small v-if="stand.at" class="quiet">{{ stand.at }}</small></span
              >
              <span v-if="!item.places.length" class="quiet">Not recorded yet</span>
            </div>
            <p v-if="differs(item, crop) === 'change'" class="wants"><span aria-hidden="true">→</span> {{ wanted(item) }}</p>
            <p v-else-if="differs(item, crop) === 'right'" class="fits"><span aria-hidden="true">✓</span> as it is</p>
            <p v-else-if="differs(item, crop) === 'ask'" class="quiet">wants {{ wanted(item) }}: look first</p>
            <p class="since quiet">
              <template v-if="item.places[0]">{{ date(item.places[0].day) }}, {{ item.places[0].by }}</template>
              <button
                v-if="moved(item)"
                type="button"
                class="link"
                :aria-expanded="opened === item.check"
                @click="opened = opened === item.check ? '' : item.check"
              >
                {{ counted(moved(item), 'change', 'changes') }}
              </button>
            </p>
            <ol v-if="opened === item.check" class="changes">
              <li v-for="(one, i) in item.changes" :key="i">
                {{ date(one.at) }}, {{ one.by }}: {{ one.label === 'Whole machine' ? '' : one.label + ', '
                }}{{ one.before ? one.before + ' → ' : '' }}<b>{{ one.after }}</b>
              </li>
            </ol>
          </li>
        </ul>
      </section>
    </template>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 4px;
  font-size: 1.05rem;
}
.sum {
  margin: 0;
}
.items {
  list-style: none;
  margin: 0;
  padding: 0;
}
.items > li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(140px, 260px) 240px;
  gap: 4px 16px;
  align-items: baseline;
  padding: 10px 12px;
  border-top: 1px solid var(--line);
  border-left: 4px solid transparent;
}
.items > li.change {
  border-left-color: var(--due);
}
.items > li.right {
  border-left-color: var(--sound);
}
.items p {
  margin: 0;
}
.what {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: baseline;
}
.what b {
  flex: 0 0 260px;
}
.state small {
  margin-left: 6px;
}
.wants {
  font-weight: 600;
  color: var(--ink);
}
.since {
  grid-column: 3;
  text-align: right;
}
.changes {
  grid-column: 1 / -1;
  margin: 4px 0 0;
  padding: 0 0 0 20px;
}
.link {
  border: 0;
  background: none;
  color: var(--accent);
  font: inherit;
  font-weight: 600;
  min-height: var(--target);
  cursor: pointer;
}
@media (max-width: 700px) {
  .items > li {
    grid-template-columns: minmax(0, 1fr);
  }
  .what b {
    flex: 1 1 100%;
  }
  .since {
    grid-column: 1;
    text-align: left;
  }
}
</style>
