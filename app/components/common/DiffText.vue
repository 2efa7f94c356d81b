<script setup lang="ts">
import { diffText } from '#core/compare/text-diff';

/** Expected against found, the difference marked where the two are alike. */
const props = withDefaults(
  defineProps<{ expected: string; found: string; failed: boolean; labels?: readonly [string, string] }>(),
  { labels: () => ['Expected', 'Found'] as const },
);
const parts = computed(() => (props.failed ? diffText(props.expected, props.found) : null));
</script>

<template>
  <dl class="diff">
    <dt>{{ labels[0] }}</dt>
    <dd>
      <template v-if="parts"
        ><template v-for="(p, i) in parts.filter((x) => x.kind !== 'found')" :key="i"
          ><mark v-if="p.kind === 'expected'" class="wanted">{{ p.text }}</mark
          ><template v-else>{{ p.text }}</template></template
        ></template
      ><template v-else>{{ expected || '–' }}</template>
    </dd>
    <dt>{{ labels[1] }}</dt>
    <dd :class="{ bad: failed && !parts }">
      <template v-if="parts"
        ><template v-for="(p, i) in parts.filter((x) => x.kind !== 'expected')" :key="i"
          ><mark v-if="p.kind === 'found'" class="got">{{ p.text }}</mark
          ><template v-else>{{ p.text }}</template></template
        ></template
      ><template v-else>{{ found || '–' }}</template>
    </dd>
  </dl>
</template>

<style scoped>
.diff {
  display: grid;
  grid-template-columns: 70px minmax(0, 1fr);
  gap: 4px 10px;
  margin: 0;
}
dt {
  color: rgb(var(--v-theme-faint));
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
.bad {
  color: rgb(var(--v-theme-error));
}
mark {
  background: none;
  color: inherit;
  border-radius: 2px;
  padding: 0 1px;
}
.wanted {
  border-bottom: 2px solid rgb(var(--v-theme-primary));
}
.got {
  color: rgb(var(--v-theme-error));
  border-bottom: 2px solid rgb(var(--v-theme-error));
  font-weight: 600;
}
</style>
