<script setup lang="ts">
/** What was changed, by whom, from what to what. */
import { moment } from './words'

defineProps<{ changes: { at: string; by: string; what: string; before: string; after: string }[] }>()
</script>

<template>
  <table class="as-list">
    <thead>
      <tr>
        <th>When</th>
        <th>Who</th>
        <th>What</th>
        <th>Was</th>
        <th>Became</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(change, i) in changes" :key="i">
        <td>{{ moment(change.at) }}</td>
        <td>{{ change.by }}</td>
        <td>{{ change.what }}</td>
        <td data-label="Was">{{ change.before }}</td>
        <td data-label="Became">
          <b>{{ change.after }}</b>
        </td>
      </tr>
      <tr v-if="!changes.length">
        <td colspan="5" class="quiet"><slot>Nothing has been changed yet.</slot></td>
      </tr>
    </tbody>
  </table>
</template>
