<script setup lang="ts">
/** Machines of a large shop that are not planned to the hour: roughly when each will be ready, and which are to come first. */
import { computed, reactive, ref, watch } from 'vue'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { counted } from '@/app/counted'
import Pager from '@/app/Pager.vue'
import { usePages } from '@/app/usePages'
import { date } from '@/app/words'
import type { Plan } from './planned'

const props = defineProps<{ plan: Plan; moves: boolean; busy: boolean }>()
const emit = defineEmits<{ first: [machines: number[]] }>()
const asked = reactive({ search: '', page: '' })
const picked = ref<number[]>([])
watch(
  () => props.plan.uuid,
  () => (picked.value = []),
)
const { found, shown, page, many } = usePages(
  () => props.plan.later,
  asked,
  (one) => one.name,
)
const late = computed(() => props.plan.later.filter((one) => one.late_days || one.without).length)
/** Machines in the plan that were asked for before. */
const chosen = computed(() => props.plan.machines.filter((one) => props.plan.chosen.includes(one.id)))
</script>

<template>
  <section v-if="plan.later.length || chosen.length" class="card" aria-labelledby="later">
    <header class="tools">
      <div class="grow">
        <h2 id="later">Later, roughly</h2>
        <p class="quiet">
          The {{ counted(plan.machines.length, 'machine') }} needed first
          {{ plan.machines.length === 1 ? 'is' : 'are' }} planned to the hour. These
          {{ counted(plan.later.length, 'other') }} share the time that is left, without regard to bays and weather<template
            v-if="late"
            >; <b>{{ late }}</b> late or without a day</template
          >.
        </p>
      </div>
      <InputText
        v-if="many"
        v-model="asked.search"
        aria-label="Find a machine that is planned later"
        placeholder="Find a machine"
        maxlength="80"
      />
      <Button
        v-if="moves && picked.length"
        :label="`Plan ${counted(picked.length, 'machine')} first`"
        :disabled="busy"
        @click="emit('first', [...plan.chosen, ...picked])"
      />
    </header>
    <p v-if="chosen.length" class="tools">
      <span>Chosen to come first: {{ chosen.map((one) => one.name).join(', ') }}.</span>
      <button v-if="moves" type="button" class="link" :disabled="busy" @click="emit('first', [])">By season date again</button>
    </p>
    <p v-if="!found.length && plan.later.length" class="quiet">No machine is called that.</p>
    <ul class="rough">
      <li v-for="one in shown" :key="one.id">
        <label v-if="moves"
          ><input v-model="picked" type="checkbox" :value="one.id" :aria-label="`Plan ${one.name} first`" />
          {{ one.name }}</label
        >
        <span v-else>{{ one.name }}</span>
        <span>{{ one.season_date ? `wanted ${date(one.season_date)}` : 'no date' }}</span>
        <span class="quiet">{{ counted(one.jobs, 'job') }}, {{ Math.round(one.hours) }} h</span>
        <span v-if="one.ready"
          >ready about {{ date(one.ready)
          }}<b v-if="one.late_days" class="sev-stop">, {{ counted(one.late_days, 'day') }} late</b></span
        >
        <span v-else>{{ one.without }}</span>
      </li>
    </ul>
    <Pager v-model="asked.page" :page="page" one="machine" />
  </section>
</template>

<style scoped>
header {
  flex-wrap: wrap;
}
header .grow {
  flex: 1 1 280px;
}
.rough li {
  display: grid;
  grid-template-columns: minmax(180px, 1.2fr) 1fr 1fr minmax(200px, 1.6fr);
  gap: 0 16px;
  align-items: center;
  min-height: var(--target);
}
.rough li + li {
  border-top: 1px solid var(--line);
}
.rough label {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: var(--target);
  font-weight: 600;
}
@media (max-width: 700px) {
  .rough li {
    grid-template-columns: 1fr 1fr;
    padding: 4px 0;
  }
}
</style>
