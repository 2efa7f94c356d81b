<script setup lang="ts">
const notes = useNotes();
</script>

<template>
  <v-app>
    <NuxtLayout><NuxtPage /></NuxtLayout>
    <!-- no message takes the Esc key from a dialog or menu that is open -->
    <v-snackbar-queue
      v-model="notes.list"
      v-bind="{ _disableGlobalStack: true }"
      closable
      :total-visible="3"
    />
    <QuestionDialog />
    <JoinDialog />
  </v-app>
</template>
