<script setup lang="ts">
import { hierarchy, partition, type HierarchyRectangularNode } from 'd3-hierarchy';
import { structureOf, type FolderNode } from '#core/pages/structure';
import type { PageLine } from '#core/pages/page-line';
import { quantity } from '#core/text/quantity';

/** The site's folders as a picture: as wide as their pages or bytes, textured by the worst finding below. */
const props = defineProps<{ pages: readonly PageLine[] }>();
const folder = defineModel<string>('folder', { required: true });
const by = ref<'pages' | 'bytes'>('pages');
const BY = [
  { key: 'pages' as const, label: 'by pages' },
  { key: 'bytes' as const, label: 'by bytes' },
];
/** Levels that are drawn, and the narrowest part that is, in percent. */
const LEVELS = 4;
const NARROWEST = 0.6;
const ROW = 34;

type Node = HierarchyRectangularNode<FolderNode>;
const parts = computed(() =>
  structureOf(props.pages)
    .slice(0, 1)
    .flatMap((root) => {
      const weight = (n: FolderNode): number => Math.max(n[by.value], 1);
      const tree = hierarchy(root).sum((n) =>
        // a page’s own share is what its folders below do not have
        Math.max(0, weight(n) - n.children.reduce((sum, c) => sum + weight(c), 0)),
      );
      tree.sort((a, b) => (b.value ?? 0) - (a.value ?? 0));
      const laid: Node = partition<FolderNode>().size([100, tree.height + 1])(tree);
      return laid.descendants().filter((n) => n.depth < LEVELS && n.x1 - n.x0 >= NARROWEST);
    }),
);
const height = computed(() => ROW * (Math.max(0, ...parts.value.map((n) => n.depth)) + 1));
function said({ data }: Node): string {
  const { path, pages, bytes, faults, worst } = data;
  const size = `${quantity(pages, 'page')}, ${quantity(Math.round(bytes / 1000), 'kilobyte')}`;
  return `${path}: ${size}, ${faults ? `${quantity(faults, 'fault')}, the worst a ${worst}` : 'no faults'}`;
}
const LEGEND = [
  { worst: 'blocker', label: 'a blocker' },
  { worst: 'major', label: 'a major' },
  { worst: 'minor', label: 'a minor' },
  { worst: 'none', label: 'no fault' },
] as const;
</script>

<template>
  <section class="structure sheet" aria-label="Structure">
    <div class="top">
      <FilterButtons v-model="by" :options="BY" label="Width" />
      <span class="spring" />
      <span v-for="l in LEGEND" :key="l.worst" class="legend faint"
        ><span class="swatch" :class="l.worst" />{{ l.label }}</span
      >
    </div>
    <div class="picture" :style="{ height: `${height}px` }">
      <button
        v-for="n in parts"
        :key="n.data.path"
        type="button"
        class="part"
        :class="[n.data.worst ?? 'none', { chosen: n.data.path === folder }]"
        :style="{
          left: `${n.x0}%`,
          width: `${n.x1 - n.x0}%`,
          top: `${n.depth * ROW}px`,
          height: `${ROW}px`,
        }"
        :title="said(n)"
        :aria-label="said(n)"
        :aria-pressed="n.data.path === folder"
        @click="folder = n.data.path === folder || n.depth === 0 ? '' : n.data.path"
      >
        <span v-if="n.x1 - n.x0 > 5" class="cut name"
          >{{ n.data.name }} <span class="num">{{ n.data.pages }}</span></span
        >
      </button>
    </div>
  </section>
</template>

<style scoped>
.structure {
  padding: 10px 12px 12px;
  margin-bottom: 12px;
}
.top {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  align-items: center;
  margin-bottom: 8px;
}
.legend {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  font-size: 12px;
}
.swatch {
  width: 22px;
  height: 12px;
  border: 1px solid rgb(var(--v-theme-rule));
}
.picture {
  position: relative;
}
.part {
  position: absolute;
  overflow: hidden;
  border: 1px solid rgb(var(--v-theme-surface));
  text-align: left;
  padding: 0 6px;
}
.name {
  display: inline-block;
  max-width: 100%;
  padding: 0 4px;
  font-size: 12px;
  background: rgb(var(--v-theme-surface));
  border-radius: 2px;
}
.none {
  background-color: rgb(var(--v-theme-primary), 0.16);
}
.minor {
  background: repeating-linear-gradient(
    90deg,
    rgb(var(--v-theme-primary), 0.16) 0 10px,
    rgb(var(--v-theme-error)) 10px 12px
  );
}
.major {
  background: repeating-linear-gradient(
    45deg,
    rgb(var(--v-theme-error), 0.18) 0 5px,
    rgb(var(--v-theme-error)) 5px 7px
  );
}
.blocker {
  background: rgb(var(--v-theme-error));
}
.part:hover,
.chosen {
  outline: 2px solid rgb(var(--v-theme-primary));
  outline-offset: -2px;
  z-index: 1;
}
</style>
