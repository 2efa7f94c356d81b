<script setup lang="ts">
import { jsonTree } from '#core/pages/json-tree';

/** JSON-LD of a page as a tree; as it stands where it does not parse. */
const props = defineProps<{ raw: string }>();
const tree = computed(() => {
  try {
    return jsonTree(JSON.parse(props.raw));
  } catch {
    return null;
  }
});
const isRaw = ref(false);
</script>

<template>
  <pre v-if="!tree || isRaw" class="raw">{{ raw }}</pre>
  <v-treeview
    v-else
    :items="tree"
    item-value="path"
    item-title="key"
    open-all
    open-on-click
    density="compact"
    class="tree"
  >
    <template #title="{ item }">
      <span class="mono key">{{ item.key }}</span><span v-if="item.kind" class="faint value">{{
        item.kind
      }}</span
      ><span v-if="item.value !== undefined" class="mono value">{{ item.value }}</span>
    </template>
  </v-treeview>
  <button v-if="tree" type="button" class="as" @click="isRaw = !isRaw">
    {{ isRaw ? 'As a tree' : 'As it stands there' }}
  </button>
</template>

<style scoped>
.tree {
  --list-indent-size: 14px;
  background: none;
  padding: 0;
}
.tree :deep(.v-list-item) {
  min-height: 26px;
  padding-block: 0;
}
.tree :deep(.v-list-item-title) {
  white-space: normal;
  overflow-wrap: anywhere;
  font-size: 12.5px !important;
}
.value {
  margin-left: 8px;
}
.key {
  color: rgb(var(--v-theme-faint));
}
.as {
  text-decoration: underline;
  color: rgb(var(--v-theme-primary));
  font-size: 12.5px;
}
</style>
