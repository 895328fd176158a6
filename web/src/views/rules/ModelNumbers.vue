<script setup lang="ts">
/** The part numbers of a model, as its parts book has them. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { counted } from '@/app/counted'
import { useSession } from '@/app/session'

const props = defineProps<{ model: Schemas['ModelRulesOut']; words: string }>()
const session = useSession()
const sought = computed(() => props.words.toLowerCase().trim())
const numbers = computed(() =>
  props.model.numbers.filter((one) => `${one.part} ${one.number}`.toLowerCase().includes(sought.value)),
)
</script>

<template>
  <h2>Part numbers</h2>
  <p>
    {{ counted(model.numbers.length, 'number') }}, {{ counted(model.to_find, 'part') }} without one.
    <RouterLink
      v-if="session.may('see the parts of the whole shop')"
      :to="{ name: 'parts-book', query: { model: model.model.id } }"
      >To its parts book</RouterLink
    >
  </p>
  <table v-if="numbers.length" class="as-list">
    <thead>
      <tr>
        <th>Part</th>
        <th>Side</th>
        <th>Number</th>
        <th class="n">Pack</th>
        <th>Remarks</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="one in numbers" :key="one.part + one.side + one.number">
        <th scope="row">{{ one.part }}</th>
        <td data-label="Side">{{ one.side }}</td>
        <td>
          <b>{{ one.number }}</b>
        </td>
        <td class="n" data-label="Pack">{{ one.pack }}</td>
        <td>{{ [one.chosen && 'fitted here', one.remarks].filter(Boolean).join(', ') }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped src="./Rules.css"></style>
