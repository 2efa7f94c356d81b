<script setup lang="ts">
import type { SpfBranch } from '#core/records/records-view';

/** One record of an SPF tree, with those that it leads to. */
defineProps<{ branch: SpfBranch }>();
</script>

<template>
  <div class="branch">
    <p class="mono">{{ branch.domain }}</p>
    <p v-if="branch.problem" class="fray">{{ branch.problem }}</p>
    <ul>
      <li v-for="term in branch.terms" :key="term">{{ term }}</li>
    </ul>
    <SpfBranch v-for="child in branch.children" :key="child.domain" :branch="child" />
  </div>
</template>

<style scoped>
.branch {
  border-left: 2px solid rgb(var(--v-theme-rule));
  padding-left: 10px;
  margin: 4px 0;
}
p,
ul {
  margin: 0;
}
ul {
  padding-left: 18px;
}
</style>
