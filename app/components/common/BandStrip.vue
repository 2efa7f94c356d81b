<script setup lang="ts">
import type { BandSegment } from '#core/score/score';
import { layoutBand } from '~/band/geometry';

/** The band, drawn. */
const props = withDefaults(
  defineProps<{
    band: BandSegment[] | null;
    width?: number;
    height?: number;
    /** What is said in place of the points of each section, such as to a client. */
    words?: string;
  }>(),
  { width: 160, height: 10, words: undefined },
);
const hatch = useId();
const segments = computed(() => layoutBand(props.band ?? [], props.width, props.height));
const label = computed(() => props.words ?? said.value);
const said = computed(() =>
  segments.value.length ? segments.value.map((s) => s.words).join('; ') : 'not audited yet',
);
</script>

<template>
  <svg
    class="band"
    :width="width"
    :height="height"
    :viewBox="`0 0 ${width} ${height}`"
    role="img"
    :aria-label="label"
    preserveAspectRatio="none"
  >
    <defs>
      <pattern :id="hatch" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="1.4" height="4" class="grey" />
      </pattern>
    </defs>
    <rect v-if="!segments.length" x="0.5" y="0.5" :width="width - 1" :height="height - 1" class="none" />
    <g v-for="s in segments" :key="s.section">
      <title v-if="words === undefined">{{ s.words }}</title>
      <template v-for="(p, i) in s.pieces" :key="i">
        <path v-if="p.kind === 'failed'" :d="p.path" class="torn" />
        <rect
          v-else-if="p.kind === 'passed'"
          :x="p.x"
          y="0"
          :width="p.width"
          :height="height"
          class="cloth"
        />
        <rect
          v-else-if="p.kind === 'undecided'"
          :x="p.x"
          y="0"
          :width="p.width"
          :height="height"
          :fill="`url(#${hatch})`"
        />
        <rect
          v-else
          :x="p.x + 0.6"
          y="0.6"
          :width="Math.max(0.4, p.width - 1.2)"
          :height="height - 1.2"
          class="outline"
        />
      </template>
    </g>
  </svg>
</template>

<style scoped>
.band {
  display: block;
  max-width: 100%;
}
.cloth {
  fill: rgb(var(--v-theme-primary));
}
.torn {
  fill: rgb(var(--v-theme-error));
}
.grey {
  fill: rgb(var(--v-theme-faint));
  opacity: 0.75;
}
.outline {
  fill: none;
  stroke: rgb(var(--v-theme-primary));
  stroke-width: 1.2;
}
.none {
  fill: none;
  stroke: rgb(var(--v-theme-rule));
  stroke-dasharray: 3 3;
}
</style>
