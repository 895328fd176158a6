<script setup lang="ts">
/** How much room there still is in the field that is typed into: said as it runs out, of every field that has an end. */
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { counted } from './counted'
import { roomIn } from './room'

const says = ref('')
const place = ref({ left: '0px', top: '0px' })

function look(event: Event): void {
  const field = event.target
  if (!(field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement)) return
  const left = event.type === 'focusout' ? null : roomIn(field.value.length, field.maxLength)
  says.value =
    left === null ? '' : left ? `${counted(left, 'character')} left` : `Full: ${field.maxLength} characters are the most`
  if (left === null) return
  const box = field.getBoundingClientRect()
  place.value = { left: `${Math.max(4, box.left)}px`, top: `${box.bottom + 2}px` }
}
/** The page moves under it; a field that scrolls its own text does not. */
const away = (event: Event): void => void (event.target === document.activeElement || (says.value = ''))
onMounted(() => {
  for (const what of ['input', 'focusin', 'focusout'] as const) document.addEventListener(what, look)
  document.addEventListener('scroll', away, { capture: true, passive: true })
})
onBeforeUnmount(() => {
  for (const what of ['input', 'focusin', 'focusout'] as const) document.removeEventListener(what, look)
  document.removeEventListener('scroll', away, { capture: true })
})
</script>

<template>
  <p class="room" :class="{ none: !says }" :style="place" role="status">{{ says }}</p>
</template>

<style scoped>
.room {
  position: fixed;
  z-index: 60;
  pointer-events: none;
  padding: 2px 8px;
  border-radius: 4px;
  font-size: 0.85rem;
  color: var(--paper);
  background: var(--ink);
}
.room.none {
  padding: 0;
}
</style>
