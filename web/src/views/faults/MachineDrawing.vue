<script setup lang="ts">
/**
 * A machine as one sees it standing before it, to point at where something shows. The buttons beside it say the same in words,
 * and are the way by keyboard and for a screen reader.
 */
import { ref } from 'vue'
import drawn from '@/design/machineDrawings.json'

type Drawing = { box: string; words: string; outline: string[]; regions: Record<string, string> }
const props = defineProps<{ family: string; stations: Record<string, string>; chosen: string }>()
const emit = defineEmits<{ choose: [station: string] }>()
const drawing = (drawn as Record<string, Drawing>)[props.family]
const over = ref('')
</script>

<template>
  <figure v-if="drawing">
    <svg :viewBox="drawing.box" aria-hidden="true" @mouseleave="over = ''">
      <path v-for="line in drawing.outline" :key="line" :d="line" class="outline" />
      <path
        v-for="name in Object.keys(drawing.regions).filter((key) => stations[key])"
        :key="name"
        :d="drawing.regions[name]"
        class="region"
        :class="{ chosen: name === chosen }"
        :data-station="name"
        @mouseenter="over = name"
        @click="emit('choose', name)"
      />
    </svg>
    <figcaption class="quiet">{{ stations[over] ?? stations[chosen] ?? drawing.words }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  min-width: 0;
}
svg {
  display: block;
  width: 100%;
}
.outline {
  fill: none;
  stroke: var(--steel);
  stroke-width: 1.5;
}
.region {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 1.5;
  cursor: pointer;
}
.region:hover {
  fill: var(--sunk);
  stroke-width: 2.5;
}
.region.chosen {
  fill: var(--accent);
}
figcaption {
  text-align: center;
}
</style>
