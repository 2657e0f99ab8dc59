<template>
  <section class="sheet first-step">
    <h1>There is nothing at this address</h1>
    <p>The run or page it named is not in this logbook. Logbooks belong to their address: own and demo are kept apart.</p>
    <v-btn to="/live">Go to Live</v-btn>
  </section>
</template>
