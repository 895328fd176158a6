<script setup lang="ts">
/** All subjects of the bench; one of them open at a time, with its inputs in the address. */
import InputText from '@/design/controls/inputtext'
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api, Refused, type Schemas } from '@/api/client'
import BenchSubject from './BenchSubject.vue'
import type { Subject } from './address'

const route = useRoute()
const subjects = ref<Subject[]>([])
const machines = ref<Schemas['MachineNameOut'][]>([])
const problem = ref('')
const words = ref('')
onMounted(async () => {
  try {
    ;[subjects.value, machines.value] = await Promise.all([
      answer(api.GET('/api/bench')),
      answer(api.GET('/api/machines/names')),
    ])
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'The bench could not be read.'
  }
})
const open = computed(() => subjects.value.find((one) => one.key === route.params.subject))
const groups = computed(() => {
  const sought = words.value.trim().toLowerCase()
  const found = new Map<string, Subject[]>()
  for (const one of subjects.value)
    if (!sought || `${one.name} ${one.about} ${one.group}`.toLowerCase().includes(sought))
      found.set(one.group, [...(found.get(one.group) ?? []), one])
  return [...found]
})
</script>

<template>
  <p v-if="problem" class="trouble" role="alert">{{ problem }}</p>
  <div v-else class="bench" :class="{ opened: !!open }">
    <nav class="list" aria-label="Subjects of the bench">
      <p v-if="open" class="top"><RouterLink :to="{ name: 'bench' }" class="back">Bench</RouterLink></p>
      <h1 v-else class="top">Bench</h1>
      <InputText v-model="words" maxlength="80" class="find" placeholder="Find" aria-label="Find a subject" />
      <section v-for="[group, listed] in groups" :key="group">
        <h2>{{ group }}</h2>
        <ul>
          <li v-for="one in listed" :key="one.key">
            <RouterLink :to="{ name: 'bench', params: { subject: one.key } }" :class="{ on: one.key === open?.key }"
              ><b>{{ one.name }}</b
              ><span v-if="!open">{{ one.about }}</span></RouterLink
            >
          </li>
        </ul>
      </section>
      <p v-if="subjects.length && !groups.length" class="quiet">Nothing here goes by that word.</p>
    </nav>
    <BenchSubject v-if="open" :key="open.key" :subject="open" :machines="machines" />
  </div>
</template>

<style scoped>
.trouble {
  padding: 40px 20px;
}
.bench {
  max-width: 1280px;
  margin: 0 auto;
  padding: 12px 20px 40px;
}
.bench.opened {
  display: grid;
  grid-template-columns: 216px minmax(0, 1fr);
  gap: 24px;
  align-items: start;
}
.list {
  display: grid;
  gap: 8px;
  align-content: start;
}
.bench:not(.opened) .list {
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 18px 28px;
}
.top {
  margin: 0;
  font-size: 1.6rem;
  font-weight: 600;
  line-height: 1.2;
}
.bench:not(.opened) .top {
  align-self: center;
  font-size: 1.9rem;
}
.bench:not(.opened) .find {
  grid-column: 2 / -1;
  justify-self: end;
}
.find {
  max-width: 420px;
  min-height: var(--target);
  width: 100%;
}
h2 {
  font-size: 1rem;
  color: var(--quiet);
  font-weight: 600;
  border-bottom: 1px solid var(--line);
  padding-bottom: 2px;
}
.opened h2 {
  margin-top: 4px;
}
li a {
  display: block;
  padding: 11px 8px;
  color: var(--ink);
  text-decoration: none;
  border-radius: var(--radius);
  line-height: 1.25;
}
.opened li a {
  padding: 7px 8px;
  min-height: 36px;
}
.opened li b {
  font-weight: 400;
}
li a:hover {
  background: var(--sunk);
}
li a.on {
  background: var(--accent-soft);
  box-shadow: inset 4px 0 0 var(--accent);
}
li a.on b {
  font-weight: 600;
}
li span {
  display: block;
  color: var(--quiet);
}
.back {
  color: var(--ink);
}
@media (max-width: 900px) {
  .bench {
    padding: 10px 12px 30px;
  }
  .bench.opened {
    grid-template-columns: minmax(0, 1fr);
  }
  .bench:not(.opened) .list {
    grid-template-columns: minmax(0, 1fr);
  }
  .bench:not(.opened) .find {
    grid-column: 1;
    justify-self: stretch;
  }
  .opened .list section,
  .opened .list .find {
    display: none;
  }
  .opened .list .top {
    font-size: 1.1rem;
  }
  .opened .back {
    display: inline-flex;
    align-items: center;
    min-height: var(--target);
  }
}
</style>
