<script setup lang="ts">
/** A moment as the reader's calendar and clock say it, with the exact UTC on hover. */
defineProps<{ iso: string }>();
</script>

<template>
  <time :datetime="iso" :title="momentUtc(iso)">{{ moment(iso) }}</time>
</template>
