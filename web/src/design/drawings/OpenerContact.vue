<script setup lang="ts">
/**
 * Two opener discs seen from the front, where their rims come together. The gap between them opens above and below; the feelers
 * stop where it is as wide as they are thick. Gaps are drawn wider than they are.
 */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<Schemas['ContactDrawing']>()

const MIDDLE = 92
const X = 80
const reach = computed(() => Math.max(props.high * 0.72, (props.equivalent ?? 0) * 0.62, 20))
const y = (mm: number): number => (mm / reach.value) * 82

/** Half the gap, in units of the picture, at a height from the middle of the contact. */
function half(mm: number): number {
  const radius = (props.diameter ?? 380) / 2
  const overlap = props.diameter == null ? 0.3 : (props.overlap ?? 0)
  const back = radius - Math.sqrt(Math.max(0, radius * radius - mm * mm))
  return Math.min(60, 1.5 + Math.max(0, back - overlap) * 9)
}
const rim = (side: 1 | -1): string => {
  const points = Array.from({ length: 41 }, (_, i) => ((i - 20) / 20) * reach.value * 1.08)
  const line = points.map((mm) => `${(X + side * half(mm)).toFixed(1)} ${(MIDDLE + y(mm)).toFixed(1)}`).join(' L')
  return `M${line} L${X + side * 72} ${MIDDLE + 96} L${X + side * 72} ${MIDDLE - 96} Z`
}
const span = computed(() => (props.diameter == null ? undefined : (props.equivalent ?? 0) / 2))
</script>

<template>
  <svg
    class="drawing"
    viewBox="0 0 340 184"
    role="img"
    :aria-label="`Opener contact ${shown || 'not measured'}, wanted ${band_shown}`"
  >
    <clipPath id="contact-frame"><rect x="6" y="2" width="148" height="180" rx="6" /></clipPath>
    <g clip-path="url(#contact-frame)">
      <path class="steel" :d="rim(-1)" />
      <path class="steel" :d="rim(1)" />
    </g>
    <template v-if="span !== undefined">
      <path class="feeler" :d="`M${X} 0 V${MIDDLE - y(span)}`" />
      <path class="feeler" :d="`M${X} 184 V${MIDDLE + y(span)}`" />
    </template>
    <g v-for="side in [-1, 1]" :key="side">
      <rect
        class="band"
        x="158"
        :y="side < 0 ? MIDDLE - y(high / 2) : MIDDLE + y(low / 2)"
        width="12"
        :height="Math.max(0, y(high / 2) - y(low / 2))"
      />
    </g>
    <template v-if="span !== undefined">
      <path
        class="lead"
        :d="`M${X + 6} ${MIDDLE - y(span)} H180 M${X + 6} ${MIDDLE + y(span)} H180 M175 ${MIDDLE - y(span)} V${MIDDLE + y(span)}`"
      />
      <text x="186" :y="MIDDLE - 2" class="strong">{{ shown }}</text>
      <text x="186" :y="MIDDLE + 17" class="faint">{{ by }}</text>
    </template>
    <g v-for="(band, i) in bands ?? []" :key="band.name" :transform="`translate(${286 + i * 18} 0)`">
      <rect
        v-for="side in [-1, 1]"
        :key="side"
        class="band strong"
        x="-6"
        :y="side < 0 ? MIDDLE - y(band.high / 2) : MIDDLE + y(band.low / 2)"
        width="12"
        :height="Math.max(1, y(band.high / 2) - y(band.low / 2))"
      />
      <text :x="0" :y="MIDDLE + 5" text-anchor="middle" class="faint tiny">{{ band.name }}</text>
    </g>
    <text v-if="bands?.length" x="334" y="176" text-anchor="end" class="faint small">bands by mm feeler</text>
    <text x="186" y="17">Wanted</text>
    <text x="186" y="35">{{ band_shown }}</text>
    <text v-if="!bands?.length" x="186" y="176" class="faint">gap drawn wider</text>
  </svg>
</template>

<style src="./drawing.css"></style>
