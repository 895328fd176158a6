<script setup lang="ts">
/** What is done before a machine stands for the winter, ticked and dated. */
import { onMounted, ref, watch } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import { newUuid } from '@/api/uuid'
import { date } from '@/app/words'
import { useAttempt } from '@/app/useAttempt'

const props = defineProps<{ machine: number }>()
const emit = defineEmits<{ kept: [] }>()
const data = ref<Schemas['PutAwayOut'] | null>(null)
const season = ref(0)
const at = useAttempt('It could not be ticked.')
const load = (): Promise<boolean> =>
  at.read(async () => {
    data.value = await answer(
      api.GET('/api/logbook/machines/{machine_id}/put-away', {
        params: { path: { machine_id: props.machine }, query: season.value ? { season: season.value } : {} },
      }),
    )
    season.value = data.value.season
  })
onMounted(load)
watch(season, (now, before) => {
  if (before && data.value && now !== data.value.season) void load()
})

async function tick(key: string, done: boolean): Promise<void> {
  const uuid = newUuid()
  await at.run(
    async () =>
      void (data.value = await write(() =>
        api.POST('/api/logbook/machines/{machine_id}/put-away', {
          params: { path: { machine_id: props.machine } },
          body: { uuid, key, season: season.value, done },
        }),
      )),
  )
  if (!at.problem) emit('kept')
}
</script>

<template>
  <section v-if="data && (data.items.length || at.problem)" class="card" aria-labelledby="put-away">
    <header class="tools">
      <h2 id="put-away" class="grow">
        Put away <span class="quiet">{{ data.done }} of {{ data.items.length }}</span>
      </h2>
      <label
        >after
        <select v-model="season">
          <option v-for="one in data.seasons" :key="one" :value="one">{{ one }}</option>
        </select></label
      >
    </header>
    <p v-if="at.problem" class="problem" role="alert">{{ at.problem }}</p>
    <ul>
      <li v-for="one in data.items" :key="one.key">
        <label :title="one.how"
          ><input
            type="checkbox"
            :checked="one.done"
            :disabled="!data.may_record || at.busy"
            @change="tick(one.key, !one.done)"
          />
          <span
            ><b :class="{ done: one.done }">{{ one.text }}</b
            ><small v-if="one.done" class="quiet">{{ date(one.at!) }}, {{ one.by }}</small
            ><small v-else-if="one.why" class="quiet">{{ one.why }}</small></span
          ></label
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
label {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: var(--target);
  line-height: 1.2;
}
li label {
  cursor: pointer;
  border-bottom: 1px solid var(--line);
  padding: 3px 0;
}
b {
  font-weight: 600;
}
b.done {
  font-weight: 400;
}
small {
  display: block;
}
h2 .quiet {
  font-weight: 400;
  font-size: 1rem;
}
</style>
