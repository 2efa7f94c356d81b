<script setup lang="ts">
/** A button that lets a file be chosen. */
defineProps<{ label: string; accept?: string; disabled?: boolean }>();
const emit = defineEmits<{ chosen: [file: File] }>();
const input = ref<HTMLInputElement | null>(null);
function chosen(): void {
  const file = input.value?.files?.[0];
  if (file) emit('chosen', file);
  if (input.value) input.value.value = '';
}
</script>

<template>
  <span class="pick"
    ><v-btn size="small" variant="text" :disabled="disabled" @click="input?.click()">{{ label }}</v-btn
    ><input ref="input" type="file" hidden :accept="accept" @change="chosen"
  /></span>
</template>

<style scoped>
/* no line box: it stands level with buttons beside it */
.pick {
  display: inline-flex;
}
</style>
