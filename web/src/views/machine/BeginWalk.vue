<script setup lang="ts">
/** Beginning a walk-around. Where one is under way, going on with that one comes first; a second one is begun for a reason. */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '@/api/client'
import Button from '@/design/controls/button'
import InputText from '@/design/controls/inputtext'
import { date, phaseName } from '@/app/words'

const props = defineProps<{
  running: Schemas['WalkAroundBrief'][]
  /** One that was begun on this device and is not sent yet. */
  begun?: string
  starting: boolean
}>()
const emit = defineEmits<{ start: [why: string] }>()
const router = useRouter()
const underWay = computed(() => {
  if (props.begun) return { id: props.begun, name: 'the walk-around', words: 'Begun on this device, not sent yet.' }
  const one = props.running[0]
  const words = one && `Begun ${date(one.started_at)} by ${one.started_by}.`
  return one && { id: one.id, name: `the ${phaseName(one.phase).toLowerCase()} walk-around`, words }
})
const second = ref(false)
const why = ref('')
</script>

<template>
  <Button v-if="!underWay" class="go" label="Start walk-around" :loading="starting" @click="emit('start', '')" />
  <template v-else>
    <Button
      class="go"
      :label="`Go on with ${underWay.name}`"
      @click="router.push({ name: 'walk-around', params: { id: underWay.id } })"
    />
    <p class="quiet">{{ underWay.words }}</p>
    <form v-if="second" class="second" @submit.prevent="emit('start', why)">
      <label for="why">Why a second one? What was read in the first stays as it is.</label>
      <InputText id="why" v-focus v-model="why" maxlength="200" required placeholder="Another crop, another time …" />
      <div class="acts">
        <Button type="submit" severity="secondary" label="Begin the second one" :loading="starting" />
        <Button severity="secondary" label="Leave it" @click="second = false" />
      </div>
    </form>
    <Button v-else severity="secondary" label="Begin a second one" @click="second = true" />
  </template>
</template>

<style scoped>
.go {
  min-height: 58px;
  font-size: 1.25rem;
}
.second {
  display: grid;
  gap: 6px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
}
</style>
