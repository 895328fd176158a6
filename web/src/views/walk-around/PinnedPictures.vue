<script setup lang="ts">
/** The shop's own pictures of what states look like on this model, beside the drawings. */
import type { Check, Schemas } from '@/api/client'
import { ref } from 'vue'
import { api, Refused, write } from '@/api/client'
import AskOnce from '@/app/AskOnce.vue'

defineProps<{ check: Check; mayTakeOff: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const problem = ref('')

async function takeOff(pin: Schemas['PinnedOut']): Promise<void> {
  try {
    await write(() => api.POST('/api/walk-arounds/pins/{pin_id}/take-off', { params: { path: { pin_id: pin.uuid } } }))
    problem.value = ''
    emit('changed')
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'It could not be taken off.'
  }
}
</script>

<template>
  <ul v-if="check.pinned.length" class="pinned" aria-label="What it looks like in this shop">
    <li v-for="one in check.pinned" :key="one.uuid">
      <a :href="one.path" target="_blank" rel="noopener"><img :src="one.path" :alt="one.words" loading="lazy" /></a>
      <span>{{ one.words }}</span>
      <AskOnce
        v-if="mayTakeOff"
        plain
        label="Take off"
        :named="`Take off the picture: ${one.words}`"
        question="It stands beside this check no more; the picture stays where it was taken."
        yes="Take it off"
        @yes="takeOff(one)"
      />
    </li>
  </ul>
  <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
</template>

<style scoped>
.pinned {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
}
img {
  display: block;
  width: 96px;
  height: 72px;
  object-fit: cover;
  border-radius: var(--radius);
}
</style>
