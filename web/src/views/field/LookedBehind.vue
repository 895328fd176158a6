<script setup lang="ts">
/** What was seen behind a machine in its first field and at emergence, and whether somebody should look again. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { date } from '@/app/words'
import FirstFieldWord from './FirstFieldWord.vue'

const props = defineProps<{ id: string; card: Schemas['FieldCardOut'] }>()
/** It has rows that come up. */
const planted = computed(() => ['row-crop-planter', 'air-seeder'].includes(props.card.machine.family ?? ''))
const looks = computed(() => (planted.value ? (['first-field', 'emergence'] as const) : (['first-field'] as const)))
const seen = (phase: string): Schemas['SeenOut'] | undefined => props.card.seen.find((one) => one.phase === phase)
</script>

<template>
  <section class="card" aria-labelledby="behind">
    <h2 id="behind">Looked at behind it</h2>
    <FirstFieldWord :first-field="card.first_field" />
    <p class="quiet">
      {{ planted ? 'Three to six metres, stop, dig every row, look behind.' : 'Three to six metres, stop, look behind it.' }}
      Again a few days later, and whenever field, soil or residue change.
    </p>
    <ul>
      <li v-for="phase in looks" :key="phase" class="tools">
        <span class="grow">
          <b>{{ phase === 'emergence' ? 'At emergence' : 'First field' }}</b>{{
            seen(phase) ? `, ${date(seen(phase)!.at)}` : ''
          }}
          <small v-for="text in seen(phase)?.found ?? []" :key="text">{{ text }}</small>
          <small v-if="seen(phase) && !seen(phase)!.running && !seen(phase)!.found.length">All right</small>
        </span>
        <RouterLink v-if="seen(phase)?.running" :to="{ name: 'walk-around', params: { id: seen(phase)!.walk_around } }"
          >Go on</RouterLink
        >
        <template v-else>
          <RouterLink v-if="seen(phase)" :to="{ name: 'findings', params: { id: seen(phase)!.walk_around } }"
            >Findings</RouterLink
          >
          <RouterLink :to="{ name: 'machine', params: { id }, query: { phase } }">{{
            seen(phase) ? 'Look again' : 'Look'
          }}</RouterLink>
        </template>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
.grow {
  flex: 1 1 320px;
}
small {
  display: block;
}
</style>
