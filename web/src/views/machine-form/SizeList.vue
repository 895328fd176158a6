<script setup lang="ts">
/** The sizes a model has of its own, each beside the drawing that shows what is meant. Left empty the starting value stands. */
import InputText from '@/design/controls/inputtext'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { Attempt } from '@/app/useAttempt'
import DrawingOf from '@/design/drawings/DrawingOf.vue'
import { drawingOf } from '@/views/walk-around/drawingOf'

const props = defineProps<{ drawn: Schemas['DrawnOut'][]; at: Attempt; order: string[] }>()
/** What was typed, by check and figure. */
const typed = defineModel<Record<string, string>>({ required: true })
const cards = computed(() =>
  props.drawn
    .map((one) => ({ ...one, picture: drawingOf(one, undefined, []) }))
    .sort((a, b) => Number(!a.picture) - Number(!b.picture)),
)
const keyOf = (size: Schemas['SizeOut']): string => `${size.check} ${size.figure}`
const refused = (size: Schemas['SizeOut']): boolean => props.at.field === `model.sizes.${props.order.indexOf(keyOf(size))}.text`
</script>

<template>
  <ul class="sizes">
    <li v-for="one in cards" :key="one.check" :class="{ drawn: one.picture }">
      <DrawingOf v-if="one.picture" class="picture" :drawing="one.picture" />
      <div class="fields">
        <b>{{ one.name }}</b>
        <label v-for="size in one.sizes" :key="size.figure"
          ><span>{{ size.name }}</span>
          <InputText
            :model-value="typed[keyOf(size)] ?? ''"
            :placeholder="size.shown || 'not stated'"
            :aria-label="`${size.check_name}: ${size.name}`"
            maxlength="30"
            :invalid="refused(size)"
            @update:model-value="(text) => (typed = { ...typed, [keyOf(size)]: String(text ?? '') })"
          />
          <span v-if="refused(size)" class="problem" role="alert">{{ at.problem }}</span>
        </label>
      </div>
    </li>
  </ul>
</template>

<style scoped>
.sizes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(300px, 100%), 1fr));
  gap: 16px 24px;
}
li {
  display: grid;
  gap: 8px;
  align-content: start;
}
.picture {
  height: 150px;
}
.fields {
  display: grid;
  gap: 6px;
}
label {
  display: grid;
  grid-template-columns: 1fr 130px;
  gap: 2px 8px;
  align-items: center;
}
.problem {
  grid-column: 1 / -1;
  color: var(--stop);
  font-weight: 600;
}
</style>
