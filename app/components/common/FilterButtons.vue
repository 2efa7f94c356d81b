<script setup lang="ts" generic="K extends string">
/** One of a few ways to look at a list, each with how many it shows. */
defineProps<{ options: { key: K; label: string; n?: number }[]; label: string }>();
const chosen = defineModel<K>({ required: true });
</script>

<template>
  <v-btn-toggle v-model="chosen" mandatory role="group" :aria-label="label">
    <v-btn v-for="o in options" :key="o.key" :value="o.key" size="small" :aria-pressed="chosen === o.key">
      {{ o.label }}&nbsp;<span v-if="o.n !== undefined" class="num faint">{{ o.n }}</span>
    </v-btn>
  </v-btn-toggle>
</template>
