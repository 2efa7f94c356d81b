<script setup lang="ts">
import { OUTCOME_WORDS, type OutcomeSign } from '~/composables/words';

/** One finding's sign, 16 x 8, always beside a word. */
defineProps<{ stitch: OutcomeSign; wordless?: boolean }>();
const hatch = useId();
</script>

<template>
  <span class="stitch" :class="stitch">
    <svg width="16" height="8" viewBox="0 0 16 8" aria-hidden="true">
      <rect v-if="stitch === 'passed'" x="0" y="2.5" width="16" height="3" rx="1" class="cloth" />
      <g v-else-if="stitch === 'failed'" class="torn">
        <rect x="0" y="4.5" width="7" height="3" rx="1" />
        <rect x="8.6" y="0.4" width="7" height="3" rx="1" transform="rotate(-10 8.6 2)" />
      </g>
      <template v-else-if="stitch === 'cantTell'">
        <defs>
          <pattern
            :id="hatch"
            width="3"
            height="3"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="1.3" height="3" class="grey" />
          </pattern>
        </defs>
        <rect x="0" y="1.5" width="16" height="5" rx="1" :fill="`url(#${hatch})`" />
      </template>
      <rect
        v-else-if="stitch === 'untested'"
        x="0.6"
        y="1.6"
        width="14.8"
        height="4.8"
        rx="1"
        class="dashed"
      />
      <template v-else-if="stitch === 'accepted'">
        <rect x="0.6" y="1.1" width="14.8" height="5.8" rx="1" class="outline" />
        <circle cx="8" cy="4" r="1.4" class="cloth" />
      </template>
      <rect v-else x="0" y="3.6" width="16" height="0.8" class="grey" />
    </svg>
    <span v-if="!wordless" class="word">{{ OUTCOME_WORDS[stitch] }}</span>
    <span v-else class="visually-hidden">{{ OUTCOME_WORDS[stitch] }}</span>
  </span>
</template>

<style scoped>
.stitch {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  white-space: nowrap;
}
.cloth {
  fill: rgb(var(--v-theme-primary));
}
.torn {
  fill: rgb(var(--v-theme-error));
}
.grey {
  fill: rgb(var(--v-theme-faint));
}
.dashed {
  fill: none;
  stroke: rgb(var(--v-theme-faint));
  stroke-width: 1.1;
  stroke-dasharray: 2 1.6;
}
.outline {
  fill: none;
  stroke: rgb(var(--v-theme-primary));
  stroke-width: 1.1;
}
.failed .word {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}
.cantTell .word,
.untested .word,
.inapplicable .word {
  color: rgb(var(--v-theme-faint));
}
</style>
