<script setup lang="ts">
/** The entries of a menu that a button opens: `MenuItem`s within a `v-menu`. */
defineProps<{ label: string }>();
</script>

<template>
  <v-list density="compact" role="menu" :aria-label="label"><slot /></v-list>
</template>
