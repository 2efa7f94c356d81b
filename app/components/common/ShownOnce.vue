<script setup lang="ts">
/** A link that is shown once: to be copied and given to whom it is for. */
defineProps<{ address: string }>();
const copy = useCopying();
</script>

<template>
  <div class="made" role="status">
    <p><slot /></p>
    <div class="line">
      <code class="address">{{ address }}</code><v-btn size="small" @click="copy(address)">Copy</v-btn>
    </div>
  </div>
</template>

<style scoped>
.made {
  border: 1px solid rgb(var(--v-theme-primary));
  border-radius: 4px;
  padding: 10px 12px;
  display: grid;
  gap: 6px;
}
.made p {
  margin: 0;
}
.line {
  display: flex;
  gap: 12px;
  align-items: start;
}
.address {
  overflow-wrap: anywhere;
  flex: 1;
}
</style>
