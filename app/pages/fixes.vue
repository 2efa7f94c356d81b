<script setup lang="ts">
useHead({ title: 'Fixes – Armband' });
const route = useRoute();
</script>

<template>
  <div class="page">
    <h1 class="mb-2">Fixes</h1>
    <FixList
      :site-id="Number(route.query.site) || undefined"
      :start-words="String(route.query.words ?? '')"
    />
  </div>
</template>
