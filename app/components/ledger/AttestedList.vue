<script setup lang="ts">
import type { AttestedOnce } from '~/types';

/** Who vouched for what, newest first. */
defineProps<{ list: AttestedOnce[] }>();
const word = (a: AttestedOnce): string => (a.doesNotApply ? 'not applicable' : a.done ? 'done' : 'not done');
</script>

<template>
  <ul class="list">
    <li v-for="a in list" :key="a.at + a.place">
      <b>{{ word(a) }}</b>, {{ a.by }}
      <span class="faint"
        ><TimeAt :iso="a.at" /><template v-if="a.goodUntil">, good until {{ a.goodUntil }}</template
        ><template v-if="a.goodWhile">, good while the site is {{ a.goodWhile }}</template></span
      >
      <span v-if="a.place" class="mono where">{{ a.place }}</span><span v-if="a.note" class="note">{{
        a.note
      }}</span
      ><a v-if="a.file" :href="`/api/files/${a.file.id}`" target="_blank" rel="noopener">{{ a.file.name }}</a>
    </li>
  </ul>
</template>

<style scoped>
.list {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 6px;
  font-size: 13px;
}
li {
  display: grid;
  grid-template-columns: auto;
  overflow-wrap: anywhere;
}
li > :deep(*) {
  justify-self: start;
}
.note {
  white-space: pre-wrap;
}
li {
  display: block;
}
.where,
.note,
a {
  display: block;
}
</style>
