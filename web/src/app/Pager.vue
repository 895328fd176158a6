<script setup lang="ts">
/** Which part of a long list is shown, and the way to the next. */
import Button from '@/design/controls/button'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { counted } from './counted'

const props = defineProps<{ page: Schemas['PageOut']; one: string; many?: string; before?: string; after?: string }>()
const number = defineModel<string>({ required: true })
const said = computed(() =>
  props.page.of > 1
    ? `${props.page.first} to ${props.page.last} of ${counted(props.page.total, props.one, props.many)}`
    : counted(props.page.total, props.one, props.many),
)
</script>

<template>
  <nav v-if="page.of > 1" class="tools" aria-label="Pages">
    <Button
      severity="secondary"
      :label="before ?? 'Back'"
      :disabled="page.number <= 1"
      @click="number = page.number > 2 ? String(page.number - 1) : ''"
    />
    <span role="status">{{ said }}</span>
    <Button
      severity="secondary"
      :label="after ?? 'Further'"
      :disabled="page.number >= page.of"
      @click="number = String(page.number + 1)"
    />
  </nav>
</template>
