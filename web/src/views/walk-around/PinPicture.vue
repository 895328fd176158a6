<script setup lang="ts">
/** The shop lead pins a picture to its check: on this model, this is what it looks like. */
import Button from '@/design/controls/button'
import { ref } from 'vue'
import { api, Refused, write, type Check } from '@/api/client'
import { newUuid } from '@/api/uuid'

const props = defineProps<{ id: string; photo: string; check: Check }>()
const emit = defineEmits<{ pinned: [] }>()
const open = ref(false)
const state = ref(props.check.options.find((one) => one.severity !== 'sound')?.key ?? '')
const problem = ref('')
/** Made once per pin, so that pressing twice pins once, and a picture taken off can be pinned again. */
let uuid = newUuid()

async function pin(): Promise<void> {
  try {
    await write(() =>
      api.POST('/api/walk-arounds/{walk_around_id}/photos/{photo_id}/pin', {
        params: { path: { walk_around_id: props.id, photo_id: props.photo } },
        body: { uuid, state: state.value },
      }),
    )
    uuid = newUuid()
    open.value = false
    problem.value = ''
    emit('pinned')
  } catch (error) {
    problem.value = error instanceof Refused ? error.message : 'It could not be pinned.'
  }
}
</script>

<template>
  <form v-if="open" class="pin" aria-label="Pin this picture to its check" @submit.prevent="pin">
    <label v-if="check.options.length"
      >It shows
      <select v-model="state">
        <option v-for="one in check.options" :key="one.key" :value="one.key">{{ one.name }}</option>
      </select></label
    >
    <Button type="submit" size="small" label="Pin for this model" />
    <Button type="button" size="small" severity="secondary" label="Not now" @click="open = false" />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </form>
  <button v-else type="button" class="link" @click="open = true">Pin as what it looks like</button>
</template>

<style scoped>
.pin {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
}
select,
.link {
  min-height: var(--target);
}
.link {
  border: 0;
  background: none;
  color: var(--accent);
  font: inherit;
  font-weight: 600;
  cursor: pointer;
}
</style>
