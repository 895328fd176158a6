<script setup lang="ts">
import { connection } from '@/api/connection'
</script>

<template>
  <section class="lost">
    <template v-if="connection.lost">
      <h1>The server does not answer</h1>
      <p>What lies at this address is made there: a report, a card, a file to take along.</p>
    </template>
    <h1 v-else>Nothing is kept at this address</h1>
    <p><RouterLink :to="{ name: 'machines' }">To the machines</RouterLink></p>
  </section>
</template>

<style scoped>
.lost {
  padding: 48px 24px;
  display: grid;
  gap: 12px;
  justify-items: start;
}
</style>
