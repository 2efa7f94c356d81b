<script setup lang="ts">
import { TEXT_FIELDS } from '~/composables/bench';
import type { TextField } from '#core/checks/kit/default-texts';
import { quantity } from '#core/text/quantity';

/** What was written for a page over time; an older text can be taken up again. */
const props = defineProps<{ siteId: number; path: string; version: number; by: string; at: string }>();
const emit = defineEmits<{ use: [texts: Partial<Record<TextField, string>>] }>();
const isOpen = ref(false);
const { data: versions, fault } = useApiQuery('/api/sites/:id/texts/versions', {
  key: () => ['site', props.siteId, 'texts', 'versions'],
  params: () => ({ id: props.siteId }),
  query: () => ({ path: props.path }),
  when: isOpen,
});
const LABELS: Record<TextField, string> = { title: 'Title', description: 'Description' };
/** What a version says; what it leaves alone stays as it is. */
const written = (texts: Partial<Record<TextField, string>>): Partial<Record<TextField, string>> =>
  Object.fromEntries(TEXT_FIELDS.flatMap((f) => (texts[f] === undefined ? [] : [[f, texts[f]]])));
</script>

<template>
  <v-menu v-model="isOpen" :close-on-content-click="false" location="bottom end">
    <template #activator="{ props: menu }"
      ><button v-bind="menu" type="button" class="faint small opener">
        version {{ version }} by {{ by }}, {{ ago(at) }}
      </button></template
    >
    <v-card class="versions" :title="quantity(version, 'version')" :subtitle="path">
      <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
      <v-progress-linear v-else-if="!versions" indeterminate color="primary" aria-label="Loading" />
      <ol v-else>
        <li v-for="v in versions" :key="v.version">
          <div class="line">
            <b class="num">{{ v.version }}</b>
            <span class="faint">{{ v.by }}, <TimeAt :iso="v.at" /></span>
            <span class="spring" />
            <v-btn
              v-if="v.version !== version"
              size="small"
              :aria-label="`Use version ${v.version}`"
              @click="
                emit('use', written(v));
                isOpen = false;
              "
              >Use it</v-btn
            >
          </div>
          <p v-for="f in TEXT_FIELDS" :key="f">
            <span class="faint small">{{ LABELS[f] }}</span> {{ v[f] ?? '(not written)' }}
          </p>
        </li>
      </ol>
    </v-card>
  </v-menu>
</template>

<style scoped>
.opener {
  text-decoration: underline;
}
.small {
  font-size: 12.5px;
}
.versions {
  width: 460px;
  max-width: 92vw;
  max-height: 60vh;
  overflow: auto;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0 16px 12px;
}
li {
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding: 8px 0;
}
.line {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
p {
  margin: 4px 0 0;
  overflow-wrap: anywhere;
}
</style>
