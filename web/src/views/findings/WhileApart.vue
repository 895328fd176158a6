<script setup lang="ts">
/** While this is apart, also …: what else lies open behind the parts that are renewed, now against later. */
import Button from '@/design/controls/button'
import { computed, onMounted, ref } from 'vue'
import { answer, api, write, type Schemas } from '@/api/client'
import SeverityMark from '@/design/SeverityMark.vue'
import { useAttempt } from '@/app/useAttempt'
import StripAlbum from './StripAlbum.vue'

type Part = Schemas['ApartPartOut']
const props = defineProps<{ id: string }>()
const data = ref<Schemas['ApartOut'] | null>(null)
const at = useAttempt('What lies open could not be read.')
const path = { params: { path: { walk_around_id: props.id } } }
const emit = defineEmits<{ found: [opened: string[]] }>()
const load = (): Promise<boolean> =>
  at.read(async () => {
    data.value = await answer(api.GET('/api/supply/walk-arounds/{walk_around_id}/apart', path))
    emit(
      'found',
      data.value.groups.map((group) => group.opened_by),
    )
  })
const steps = ref<Schemas['StripPictureOut'][]>([])
const loadSteps = (): Promise<boolean> =>
  at.read(async () => void (steps.value = await answer(api.GET('/api/walk-arounds/{walk_around_id}/strip-pictures', path))))
onMounted(async () => {
  await load()
  if (data.value?.groups.length) await loadSteps()
})
const take = (part: Part): Promise<boolean> =>
  at.run(
    async () =>
      void (data.value = await write(() =>
        api.POST('/api/supply/walk-arounds/{walk_around_id}/apart', {
          ...path,
          body: { slot: part.slot, positions: [part.position], taken: !part.taken },
        }),
      )),
  )
const ADVICE: Record<string, string> = { renew: 'Renew it now', leave: 'Leave it', either: 'Either way', price: 'No price yet' }
const widest = computed(() =>
  Math.max(
    1,
    ...(data.value?.groups ?? []).flatMap((group) =>
      group.parts.flatMap((part) => [Number(part.cost_now), Number(part.cost_later)]),
    ),
  ),
)
const bar = (cost: string): string => `${Math.max(1, (60 * Number(cost)) / widest.value)}%`
const pct = (share: number | null): string => (share === null ? '–' : `${(100 * share).toFixed(1).replace(/\.0$/, '')} %`)
</script>

<template>
  <section v-if="data?.groups.length || at.problem" class="apart" aria-labelledby="apart">
    <h2 id="apart">While this is apart, also …</h2>
    <p v-if="data" class="quiet">
      Now: the life thrown away and the extra work. Later: the chance that it fails in the season, times stripping down again
      and standing still. Work at {{ data.labour_rate }} {{ data.currency }} an hour, standing at {{ data.downtime_rate }}
      {{ data.currency }} an hour. Safety items are never weighed against money.
    </p>
    <p v-if="at.problem" class="problem" role="alert">{{ at.problem }}</p>
    <article v-for="group in data?.groups ?? []" :key="group.key">
      <h3>
        {{ group.name }}
        <span class="quiet"
          >for {{ group.opened_by }}: {{ group.hours }} h, {{ group.downtime_h }} h standing if it must be done in the season
          ({{ group.source }})</span
        >
      </h3>
      <ul>
        <li v-for="part in group.parts" :key="part.slot + part.position">
          <span class="what"
            ><SeverityMark :severity="part.state === 'not seen' ? 'not-seen' : (part.state as 'sound')" />
            <b>{{ part.name }}</b> {{ part.label.toLowerCase() }}</span
          >
          <span v-if="part.cost_now" class="bars" :aria-label="`now ${part.cost_now}, later ${part.cost_later}`"
            ><span class="now"><i :style="{ width: bar(part.cost_now) }" /> now {{ part.cost_now }} {{ data?.currency }}</span
            ><span class="later"
              ><i :style="{ width: bar(part.cost_later) }" /> later {{ part.cost_later }} {{ data?.currency }}</span
            ></span
          >
          <span v-else class="quiet">no price yet, so it cannot be weighed</span>
          <span class="advice"
            ><b>{{ ADVICE[part.advice] }}</b
            ><small v-if="part.by_school" class="quiet">by the shop’s school</small
            ><small v-if="part.cost_now" class="quiet"
              >chance {{ pct(part.p_fail) }}, even at {{ pct(part.break_even) }}</small
            ></span
          >
          <Button
            v-if="data!.may_take"
            :severity="part.taken ? 'secondary' : undefined"
            :outlined="!part.taken"
            :label="part.taken ? 'On the list: take off' : 'Put on the list'"
            :aria-label="`${part.taken ? 'On the list: take off' : 'Put on the list'}: ${part.name}, ${part.label}`"
            :disabled="at.busy"
            @click="take(part)"
          />
        </li>
      </ul>
      <StripAlbum
        :id="id"
        :strip-down="group.strip_down"
        :place="group.place"
        :name="group.name"
        :steps="steps"
        :may-add="data!.may_picture"
        @changed="(now) => (steps = now)"
        @reload="loadSteps"
      />
    </article>
  </section>
</template>

<style scoped>
.apart {
  display: grid;
  gap: 8px;
}
article {
  background: var(--surface);
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 8px 16px;
}
h3 span {
  font-weight: 400;
  font-size: 1rem;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1.3fr) 190px 190px;
  gap: 4px 16px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.what {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
}
.bars {
  display: grid;
}
.bars span {
  display: flex;
  align-items: center;
  gap: 6px;
  white-space: nowrap;
}
i {
  display: block;
  height: 10px;
  border-radius: 2px;
  flex: none;
}
.now i {
  background: var(--steel);
}
.later i {
  background: var(--due);
}
.advice small {
  display: block;
}
li :deep(.p-button) {
  min-height: var(--target);
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 900px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
