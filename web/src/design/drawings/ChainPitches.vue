<script setup lang="ts">
/** A length of chain against what it was when new and where it is retired. Growth is drawn larger than it is. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { anchored, scale } from './scale'

const props = defineProps<Schemas['ChainDrawing']>()

const x = scale(0, 1, 208, 282)
const end = computed(() => Math.min(330, Math.max(190, 208 + 74 * props.used)))
const pins = computed(() => Array.from({ length: 9 }, (_, i) => 22 + ((end.value - 22) * i) / 8))
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Chain ${shown}, new ${fresh_shown}, limit ${limit_shown}`"
  >
    <g v-for="(pin, i) in pins.slice(1)" :key="i">
      <rect
        class="steel"
        :x="pins[i]! - 7"
        :y="i % 2 ? 66 : 70"
        :width="pin - pins[i]! + 14"
        :height="i % 2 ? 24 : 16"
        rx="8"
      />
    </g>
    <circle v-for="(pin, i) in pins" :key="`p${i}`" class="hub" :cx="pin" cy="78" r="5" />
    <path class="new" :d="`M${x(0)} 54V132`" />
    <text :x="x(0)" y="148" text-anchor="middle" class="faint">{{ fresh_shown }}</text>
    <path class="limit" :d="`M${x(1)} 54V156`" />
    <text :x="x(1)" y="172" text-anchor="middle">{{ limit_shown }}</text>
    <rect v-if="plus_minus" class="band" :x="end - 74 * plus_minus" y="98" :width="148 * plus_minus" height="10" />
    <path class="lead" :d="`M22 103H${end}`" />
    <path class="mark" :d="`M${end} 60l-8-14h16z`" />
    <text :x="end" y="36" class="strong" :text-anchor="anchored(end)">{{ shown }}</text>
    <text x="22" y="172" class="faint">growth drawn larger</text>
  </svg>
</template>

<style src="./drawing.css"></style>
