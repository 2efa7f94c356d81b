<script setup lang="ts">
const notes = useNotes();
</script>

<template>
  <div class="notes" aria-live="polite">
    <div v-for="n in notes.list" :key="n.id" class="note sheet" :class="{ bad: n.bad }" role="status">
      <span>{{ n.text }}</span>
      <button type="button" class="close" aria-label="Close this message" @click="notes.drop(n.id)">×</button>
    </div>
  </div>
</template>

<style scoped>
.notes {
  position: fixed;
  bottom: 16px;
  left: 50%;
  transform: translateX(-50%);
  z-index: 3000;
  display: flex;
  flex-direction: column;
  gap: 8px;
  width: min(560px, calc(100vw - 24px));
}
.note {
  padding: 10px 14px;
  box-shadow: 0 4px 16px rgb(0 0 0 / 18%);
  display: flex;
  gap: 12px;
  align-items: start;
  justify-content: space-between;
}
.note.bad {
  border-color: rgb(var(--v-theme-error));
}
.close {
  font-size: 16px;
  line-height: 1;
}
</style>
