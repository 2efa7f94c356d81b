<script setup lang="ts">
import type { Version } from '~/types';

/** Versions of a document, newest first: who, when, what changed; an older one can be brought back. */
const props = defineProps<{
  of: {
    route: '/api/sites/:id/briefs' | '/api/host-profiles/:id/versions' | '/api/launch-template/versions';
    /** Of what there is one of, any. */
    id: number;
    key: (string | number)[];
  };
  label: (field: string) => string;
  busy?: boolean;
}>();
const emit = defineEmits<{ back: [version: Version<object>] }>();
const { rows, fault, hasMore, more, isFetching } = useApiInfiniteQuery(props.of.route, {
  key: props.of.key,
  params: { id: props.of.id },
});
const versions = computed(() => (rows.value ?? []) as Version<object>[]);
const open = ref(0);
</script>

<template>
  <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  <ol class="versions">
    <li v-for="(v, i) in versions" :key="v.version">
      <div class="line">
        <b class="num">Version {{ v.version }}</b
        ><span class="faint">{{ v.savedBy ?? 'Armband' }}, <TimeAt :iso="v.savedAt" /></span
        ><span class="spring" /><button
          type="button"
          class="link"
          :aria-expanded="open === v.version"
          @click="open = open === v.version ? 0 : v.version"
        >
          {{ open === v.version ? 'Close' : 'Look at it' }}</button
        ><v-btn v-if="i > 0" size="small" :disabled="busy" @click="emit('back', v)">Bring back</v-btn
        ><span v-else class="faint">the newest</span>
      </div>
      <ul v-if="v.changes.length" class="changes">
        <li v-for="c in v.changes.slice(0, 12)" :key="c.field">
          <span class="faint">{{ label(c.field) }} {{ c.kind }}</span>
          <del v-if="c.from" class="faint">{{ c.from }}</del>
          <ins v-if="c.to">{{ c.to }}</ins>
        </li>
        <li v-if="v.changes.length > 12" class="faint">and {{ v.changes.length - 12 }} more</li>
      </ul>
      <p v-else class="faint small">Nothing changed.</p>
      <pre v-if="open === v.version" class="raw">{{ JSON.stringify(v.data, null, 2) }}</pre>
    </li>
  </ol>
  <v-btn v-if="hasMore" size="small" variant="text" :loading="isFetching" @click="more()">Older ones</v-btn>
</template>

<style scoped>
.versions {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 10px;
}
.versions > li {
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding-top: 10px;
  min-width: 0;
}
.line {
  display: flex;
  gap: 12px;
  align-items: baseline;
  flex-wrap: wrap;
}
.changes {
  padding-left: 18px;
  margin: 4px 0;
  overflow-wrap: anywhere;
}
.changes li > * + * {
  margin-left: 4px;
}
ins {
  text-decoration: none;
  font-weight: 600;
}
.small {
  font-size: 13px;
}
.link {
  text-decoration: underline;
  color: rgb(var(--v-theme-primary));
}
pre {
  margin-top: 6px;
  max-height: 360px;
}
</style>
