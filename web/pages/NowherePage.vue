<template>
  <section class="card">
    <h1>There is nothing here</h1>
    <p>This address leads to no room. Perhaps the student was taken off the roster.</p>
    <p><RouterLink :to="{ name: 'today' }">Back to Today</RouterLink></p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
  max-width: 560px;
}
</style>
