<script setup lang="ts">
/** A shop's first day, step by step: each may be left and taken up again; what comes next is the one that stands out. */
import Button from '@/design/controls/button'
import { computed, onMounted, ref } from 'vue'
import type { RouteLocationRaw } from 'vue-router'
import { answer, api, write, type Schemas } from '@/api/client'
import { counted } from '@/app/counted'
import { useSession } from '@/app/session'
import { useAttempt } from '@/app/useAttempt'

const props = defineProps<{ machines: Schemas['BoardMachineOut'][] }>()
const session = useSession()
const shop = ref<Schemas['ShopOut'] | null>(null)
const at = useAttempt('The shop could not be read.')
onMounted(() => at.read(async () => void (shop.value = await answer(api.GET('/api/shop')))))

interface Step {
  name: string
  says: string
  why: string
  done: boolean
  does: string
  to: RouteLocationRaw
}
const steps = computed<Step[]>(() => {
  const here = shop.value
  const first = props.machines[0]
  const asked = here && here.asked ? `, ${counted(here.asked, 'person', 'people')} asked` : ''
  return [
    {
      name: 'Your shop',
      says: session.me?.shop ?? '',
      done: !!here?.described,
      why: 'Its name on every report, and how people log in.',
      does: 'Go over it',
      to: { name: 'shop' },
    },
    {
      name: 'Your people',
      says: here ? `${counted(here.people, 'person', 'people')}${asked}` : '',
      done: !!here && here.people + here.asked > 1,
      why: 'Technicians, the parts desk, the owners of machines. Who works alone goes on.',
      does: 'Ask somebody to join',
      to: { name: 'people' },
    },
    {
      name: 'Your first machine',
      says: props.machines.length
        ? props.machines
            .map((card) => card.machine.name)
            .slice(0, 3)
            .join(', ')
        : 'none yet',
      done: props.machines.length > 0,
      why: 'What it is and what it has decides which checks are made. Sizes can wait for the manual.',
      does: 'Add a machine',
      to: { name: 'new-machine' },
    },
    {
      name: 'Walk round it',
      says: first ? first.machine.name : '',
      done: props.machines.some((card) => card.newest),
      why: 'Choose the time of the season and begin; it can be put down and taken up at any place.',
      does: 'Start',
      to: first ? { name: 'machine', params: { id: first.machine.id } } : { name: 'new-machine' },
    },
  ]
})
/** After whatever was done last: who works alone asks nobody. */
const next = computed(() => steps.value.map((step) => step.done).lastIndexOf(true) + 1)
const away = (): Promise<boolean> =>
  at.run(async () => {
    await write(() => api.POST('/api/shop/begun'))
    await session.load()
  })
</script>

<template>
  <section class="first" aria-labelledby="first-day">
    <h2 id="first-day">The first day</h2>
    <p v-if="at.problem" class="problem" role="alert">{{ at.problem }}</p>
    <ol>
      <li v-for="(step, i) in steps" :key="step.name" :class="{ next: i === next, done: step.done }">
        <svg viewBox="0 0 24 24" aria-hidden="true">
          <circle cx="12" cy="12" r="9" />
          <path v-if="step.done" d="m7.5 12.5 3 3 6-7" />
        </svg>
        <span class="what"
          ><b>{{ step.name }}</b
          ><span class="unseen">{{ step.done ? ', done' : i === next ? ', next' : '' }}</span
          ><small class="quiet">{{ step.says }}</small></span
        >
        <p>{{ step.why }}</p>
        <RouterLink :to="step.to">{{ step.does }}</RouterLink>
      </li>
    </ol>
    <p v-if="next >= steps.length" class="over">
      <Button severity="secondary" label="Put this away" @click="away" />
    </p>
    <p v-else-if="next > 2" class="over"><button type="button" class="link" @click="away">Put this away</button></p>
  </section>
</template>

<style scoped>
.first {
  display: grid;
  gap: 8px;
}
ol {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(230px, 100%), 1fr));
  gap: 12px;
}
li {
  display: grid;
  grid-template-columns: 26px 1fr;
  grid-template-rows: auto 1fr auto;
  gap: 10px;
  padding: 14px 16px;
  background: var(--surface);
  border: 1px solid var(--line);
  border-radius: var(--radius);
}
li.next {
  border: 2px solid var(--accent);
}
svg {
  width: 26px;
  height: 26px;
  fill: none;
  stroke: var(--quiet);
  stroke-width: 2;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.done svg,
.next svg {
  stroke: var(--accent);
}
.what small {
  display: block;
}
li p {
  grid-column: 1 / -1;
}
li a {
  grid-column: 1 / -1;
  align-self: end;
  display: inline-flex;
  align-items: center;
  justify-content: center;
  min-height: 48px;
  border-radius: var(--radius);
  font-weight: 600;
}
li.next a {
  background: var(--accent);
  color: var(--on-accent);
  text-decoration: none;
  font-size: 1.1rem;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
.link {
  border: 0;
  padding: 0;
  min-height: var(--target);
  background: none;
  color: var(--accent);
  text-decoration: underline;
  cursor: pointer;
}
</style>
