<script setup lang="ts">
/** One thing that is set by crop: how it stands, how it is to stand, drawn; at which places. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { span } from '@/app/duration'
import StateLook from '@/design/looks/StateLook.vue'
import { moves } from './changeover'

const props = defineProps<{ item: Schemas['ChangeItemOut'] }>()
const TODO = { ask: 'Look first', manual: 'As the manual says', do: 'At every change', set: '' }
const groups = computed(() => moves(props.item.places))
</script>

<template>
  <li :class="{ grave: item.grave }">
    <div class="what">
      <b>{{ item.name }}</b>
      <span v-if="TODO[item.todo]" class="todo">{{ TODO[item.todo] }}</span>
      <span v-if="item.grave" class="todo stop">Stop: not into this crop as it is</span>
      <span v-if="item.back" class="todo">Changed back afterwards</span>
      <span v-if="item.minutes" class="quiet">{{ span(item.minutes) }}{{ item.hands > 1 ? ', two people' : '' }}</span>
    </div>
    <div v-for="one in groups" :key="one.places" class="move">
      <template v-if="one.to">
        <StateLook v-if="item.look" :motif="item.look" :state="one.nowState" />
        <span>{{ one.now }}</span>
        <svg viewBox="0 0 24 12" aria-label="to" role="img"><path d="M0 6h20M15 1l6 5-6 5" /></svg>
        <StateLook v-if="item.look" :motif="item.look" :state="one.toState" />
        <b>{{ one.to }}</b>
      </template>
      <template v-else>
        <span>Nobody knows how it stands:</span>
        <span v-for="state in item.states" :key="state.key" class="state" :class="{ wanted: state.wanted }">
          <StateLook v-if="item.look" :motif="item.look" :state="state.key" />
          {{ state.name }}<template v-if="state.wanted"> as wanted</template>
        </span>
      </template>
      <small v-if="one.places" class="quiet">{{ one.places }}</small>
    </div>
    <p class="quiet">{{ item.mends || item.how }}</p>
    <p v-for="one in item.cautions" :key="one" class="caution">{{ one }}</p>
  </li>
</template>

<style scoped>
li {
  padding: 10px 12px;
  border-top: 1px solid var(--line);
  border-left: 4px solid transparent;
  display: grid;
  gap: 4px;
}
li.grave {
  border-left-color: var(--stop);
}
.what,
.move {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
}
.what b {
  font-size: 1.08rem;
}
.todo {
  border: 1px solid var(--quiet);
  border-radius: 4px;
  padding: 0 6px;
  font-size: 0.92rem;
}
.todo.stop {
  border: 2px solid var(--stop);
  font-weight: 600;
}
.state {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
.state.wanted {
  font-weight: 600;
}
.move svg {
  width: 24px;
  fill: none;
  stroke: var(--accent);
  stroke-width: 2;
}
.move :deep(.look) {
  width: 48px;
  height: 36px;
}
.caution {
  border-left: 4px solid var(--due);
  padding-left: 10px;
}
</style>
