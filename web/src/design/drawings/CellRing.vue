<script setup lang="ts">
/** A seed disc of a hundred cells as the run filled them: one seed, none, two. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['RingDrawing']>()
const cells = computed(() => {
  const skips = Math.min(100, Math.ceil(props.skip_pct - 1e-9))
  const doubles = Math.min(100 - skips, Math.ceil(props.double_pct - 1e-9))
  /** Faults are spread round the disc, not heaped. */
  const faulty = new Map<number, string>()
  const all = skips + doubles
  for (let i = 0; i < all; i++) faulty.set(Math.floor((i * 100) / all), i % 2 === 0 && i / 2 < skips ? 'skip' : 'double')
  const wrong = [...faulty.keys()]
  wrong.forEach((cell, i) => faulty.set(cell, i < skips ? 'skip' : 'double'))
  return Array.from({ length: 100 }, (_, i) => {
    const ring = i % 2 ? 74 : 62
    const angle = (i / 100) * Math.PI * 2
    return { x: 92 + ring * Math.cos(angle), y: 92 + ring * Math.sin(angle), kind: faulty.get(i) ?? 'one' }
  })
})
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Of a hundred cells: ${shown} singled, ${skip_shown} skips, ${double_shown} doubles`"
  >
    <circle class="hollow" cx="92" cy="92" r="84" />
    <template v-for="(cell, i) in cells" :key="i">
      <circle v-if="cell.kind === 'one'" :cx="cell.x" :cy="cell.y" r="3" class="seed" />
      <circle v-else-if="cell.kind === 'skip'" :cx="cell.x" :cy="cell.y" r="5.4" class="missing" />
      <g v-else class="seed off">
        <circle :cx="cell.x - 3.4" :cy="cell.y" r="3.6" />
        <circle :cx="cell.x + 3.4" :cy="cell.y" r="3.6" />
      </g>
    </template>
    <text x="92" y="98" text-anchor="middle" class="strong">{{ shown }}</text>
    <circle cx="204" cy="62" r="6" class="missing" />
    <text x="220" y="68">Skips {{ skip_shown }}</text>
    <g class="seed off">
      <circle cx="200" cy="98" r="4" />
      <circle cx="208" cy="98" r="4" />
    </g>
    <text x="220" y="104">Doubles {{ double_shown }}</text>
    <text x="196" y="150" class="faint">of a hundred cells</text>
  </svg>
</template>

<style src="./drawing.css"></style>
