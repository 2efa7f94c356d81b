<template>
  <v-app>
    <NuxtLayout><NuxtPage /></NuxtLayout>
    <NoteList />
  </v-app>
</template>
