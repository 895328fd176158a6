<template>
  <section class="lost">
    <h1>Nothing is kept at this address</h1>
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
