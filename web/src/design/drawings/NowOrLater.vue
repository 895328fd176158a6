<script setup lang="ts">
/** For each part the cost of renewing it now beside the expected cost of leaving it. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['CostsDrawing']>()
const seen = computed(() => props.parts.slice(0, 4))
const most = computed(() => Math.max(1, ...props.parts.flatMap((part) => [part.now, part.later])))
const step = computed(() => 150 / Math.max(2, seen.value.length))
const width = (cost: number): number => Math.max(1, (170 * cost) / most.value)
const WORDS = { renew: 'renew', leave: 'leave', either: 'either way' }
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="
      parts
        .map((part) => `${part.name}: now ${part.now.toFixed(0)}, later ${part.later.toFixed(0)}, ${WORDS[part.advice]}`)
        .join('. ')
    "
  >
    <g v-for="(part, i) in seen" :key="part.name" :transform="`translate(6 ${4 + i * step})`">
      <text y="16" :class="part.advice === 'renew' ? 'strong' : ''">{{ part.name }}: {{ WORDS[part.advice] }}</text>
      <rect class="cardbar" x="46" y="23" :width="width(part.now)" height="13" />
      <text x="0" y="35" class="faint small">now</text>
      <text :x="52 + width(part.now)" y="35" class="small">{{ part.now.toFixed(0) }}</text>
      <rect class="bar" x="46" y="41" :width="width(part.later)" height="13" />
      <text x="0" y="53" class="faint small">later</text>
      <text :x="52 + width(part.later)" y="53" class="small">{{ part.later.toFixed(0) }}</text>
    </g>
    <text x="6" y="180" class="faint small">expected cost in the shop’s currency</text>
  </svg>
</template>

<style src="./drawing.css"></style>
