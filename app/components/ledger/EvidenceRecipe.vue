<script setup lang="ts">
import type { LedgerFinding } from '~/types';

/** How to put a fault right, with texts to copy. */
const props = defineProps<{ recipe: NonNullable<LedgerFinding['recipe']> }>();
const copy = useCopying();
const texts = computed(() => (props.recipe.paste ?? []).filter((p) => p.text));
</script>

<template>
  <section>
    <h3>How to fix it</h3>
    <p>{{ recipe.steps }}</p>
    <div v-for="p in texts" :key="p.label + p.text" class="paste">
      <div class="label">
        <span class="faint cut">{{ p.label }}</span><button type="button" class="link" @click="copy(p.text)">
          Copy
        </button>
      </div>
      <pre class="raw">{{ p.text }}</pre>
    </div>
  </section>
</template>

<style scoped>
.paste {
  min-width: 0;
}
.label {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  min-width: 0;
}
.link {
  white-space: nowrap;
  text-decoration: underline;
  color: rgb(var(--v-theme-primary));
}
</style>
