<script setup lang="ts">
import type { Answer } from '~/composables/api';

/** Pages of two audits as a browser showed them: side by side, or laid over each other. */
const props = defineProps<{
  siteId: number;
  first: { auditId: number; environment: string; at: string };
  second: { auditId: number; environment: string; at: string };
}>();
type Pair = Answer<'/api/sites/:id/compare/pictures'>['pairs'][number];
const query = computed(() => ({ first: props.first.auditId, second: props.second.auditId }));
const { data: found, fault } = useApiQuery('/api/sites/:id/compare/pictures', {
  key: () => ['site', props.siteId, 'compare', 'pictures'],
  params: () => ({ id: props.siteId }),
  query,
});
const chosen = ref<Pair>();
watch(
  () => found.value?.pairs,
  (pairs) => (chosen.value = pairs?.[0]),
  { immediate: true },
);
const VIEWS = [
  { key: 'beside', label: 'Side by side' },
  { key: 'over', label: 'Laid over each other' },
];
const view = ref('beside');
const percent = (share: number): string =>
  share === 0
    ? 'no difference'
    : share < 0.001
      ? 'below 0.1 % differs'
      : `${(share * 100).toFixed(1)} % differs`;
const drawn = computed(() =>
  chosen.value
    ? pictureAddress('/api/sites/:id/compare/drawn', props.siteId, {
        ...query.value,
        path: chosen.value.path,
        screen: chosen.value.screen,
      })
    : '',
);
</script>

<template>
  <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  <v-progress-linear v-else-if="!found" indeterminate color="primary" aria-label="Comparing pictures" />
  <div v-else-if="found.missing" class="sheet empty">
    <p>
      There are no pictures of both: {{ found.missing }}. <b>Look again …</b> at pages in a browser takes
      them.
    </p>
  </div>
  <div v-else class="split">
    <ul class="sheet list" aria-label="Pairs of pictures">
      <li v-for="p in found.pairs" :key="`${p.screen} ${p.path}`">
        <button type="button" :class="{ on: p === chosen }" :aria-pressed="p === chosen" @click="chosen = p">
          <span class="mono cut">{{ p.path }}</span>
          <span class="faint">{{ SCREEN_LABELS[p.screen] }}</span>
          <span :class="{ fray: p.share }">{{ p.fault ?? percent(p.share ?? 0) }}</span>
        </button>
      </li>
    </ul>
    <div v-if="chosen">
      <div class="bar">
        <FilterButtons v-model="view" :options="VIEWS" label="How they are shown" />
        <span v-if="chosen.masked" class="faint">
          {{ (chosen.masked * 100).toFixed(1) }} % changes by itself and was left out
        </span>
      </div>
      <div v-if="view === 'beside'" class="both" :class="chosen.screen">
        <figure
          v-for="s in [
            { of: first, sha: chosen.first },
            { of: second, sha: chosen.second },
          ]"
          :key="s.of.auditId"
        >
          <figcaption class="faint">{{ s.of.environment }}, {{ moment(s.of.at) }}</figcaption>
          <img :src="seenAddress(s.of.auditId, s.sha)" :alt="`${chosen.path} on ${s.of.environment}`" />
        </figure>
      </div>
      <figure v-else class="over" :class="chosen.screen">
        <figcaption class="faint">
          Red: differs. Grey: changes by itself. The rest is the second, faded.
        </figcaption>
        <img :key="drawn" :src="drawn" :alt="`What differs on ${chosen.path}`" />
      </figure>
    </div>
  </div>
</template>

<style scoped>
.split {
  margin-top: 12px;
  display: grid;
  grid-template-columns: 260px minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}
.list {
  list-style: none;
  padding: 4px 0;
  margin: 0;
}
.list button {
  display: grid;
  width: 100%;
  text-align: left;
  padding: 6px 12px;
  gap: 1px;
}
.list button.on {
  background: rgba(var(--v-theme-primary), 0.12);
}
.bar {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
  margin-bottom: 8px;
}
.both {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.both.phone,
.over.phone {
  max-width: 820px;
}
.over.phone img {
  max-width: 400px;
}
figure {
  margin: 0;
}
img {
  width: 100%;
  height: auto;
  display: block;
  border: 1px solid rgb(var(--v-theme-rule));
}
@media (max-width: 700px) {
  .split {
    grid-template-columns: 1fr;
  }
}
</style>
