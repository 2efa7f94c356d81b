<script setup lang="ts">
/** A small copy of a picture of the site; words where it cannot be had. */
const props = defineProps<{ environmentId: number; url: string; width: number; alt: string }>();
const failed = ref(false);
watch(
  () => props.url,
  () => (failed.value = false),
);
</script>

<template>
  <span v-if="failed" class="gone faint">not shown</span>
  <img
    v-else
    :src="smallPicture(environmentId, url, width)"
    :alt="alt"
    loading="lazy"
    @error="failed = true"
  />
</template>

<style scoped>
.gone {
  display: inline-block;
  font-size: 11px;
  line-height: 1.2;
}
</style>
