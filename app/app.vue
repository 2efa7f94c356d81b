<script setup lang="ts">
const notes = useNotes();
</script>

<template>
  <v-app>
    <NuxtLayout><NuxtPage /></NuxtLayout>
    <v-snackbar-queue v-model="notes.list" closable :total-visible="3" />
    <QuestionDialog />
  </v-app>
</template>
