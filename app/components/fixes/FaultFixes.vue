<script setup lang="ts">
import { isRemarkCheck } from '#core/facts/fix';
import { countText } from '#core/text/counted';
import { pointsText } from '#core/text/points';
import type { FixFilter } from '~/composables/fix-filter';
import type { FixRow } from '~/types';

/** One fault on all sites that have it: how to fix it, said once, and each site's own text to paste. */
const props = defineProps<{ check: string; filter: FixFilter }>();
const emit = defineEmits<{ open: [fix: FixRow] }>();
const at = defineModel<number>('at', { required: true });
const chosen = ref<number[]>([]);
const copyText = useCopying();
const {
  rows: read,
  about,
  fault,
  hasMore,
  more,
} = useApiInfiniteQuery('/api/fixes', {
  key: ['fixes'],
  query: () => ({ ...props.filter, check: props.check }),
});
const rows = computed(() => read.value ?? []);
const total = computed(() => about.value?.total ?? 0);
const MOST_TEXTS = 200;
const environmentIds = computed(() =>
  rows.value
    .slice(0, MOST_TEXTS)
    .map((r) => r.environmentId)
    .sort((a, b) => a - b),
);
const { data: recipe } = useApiQuery('/api/fixes/recipe', {
  key: ['fixes'],
  query: () => ({ check: props.check, environments: environmentIds.value.join(',') }),
  when: () => environmentIds.value.length > 0 && !isRemarkCheck(props.check),
});
/** All that match, those too that are not read yet. */
const { run: chooseAll } = useAction(async (on: boolean) => {
  const query = { ...props.filter, check: props.check };
  chosen.value = on ? await api('/api/fixes/ids', { query }) : [];
});
const allChosen = computed(() => rows.value.length > 0 && chosen.value.length >= total.value);
const ownOf = (r: FixRow) => recipe.value?.own[r.environmentId];
</script>

<template>
  <div class="inside">
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <p v-if="recipe" class="prose">
      <b>How to fix it.</b> {{ recipe.steps ?? 'Each site has its own way, said below.' }}
      <span class="faint">{{ recipe.why }}</span>
    </p>
    <div class="bulk">
      <v-checkbox
        :model-value="allChosen"
        :indeterminate="chosen.length > 0 && !allChosen"
        :label="chosen.length ? `${chosen.length} chosen` : `Choose all ${countText(total, !filter.words)}`"
        @update:model-value="chooseAll(Boolean($event))"
      />
      <FixBulk v-if="chosen.length" :ids="chosen" @done="chosen = []" />
    </div>
    <ul>
      <li v-for="r in rows" :key="r.id" :class="{ at: r.id === at }">
        <v-checkbox-btn
          v-model="chosen"
          :value="r.id"
          density="compact"
          :aria-label="`Choose ${r.site}, ${r.environment}`"
        />
        <div class="body">
          <div class="line">
            <button
              type="button"
              class="link"
              @click="
                at = r.id;
                emit('open', r);
              "
            >
              {{ r.site }}, {{ r.environment.toLowerCase() }}
            </button>
            <span class="faint">{{ r.state }}, {{ r.owner ?? 'nobody' }}</span>
            <span v-if="r.dueDate" class="faint num">due {{ dayText(r.dueDate) }}</span>
            <span class="spring" />
            <span v-if="r.points" class="fray num">{{ pointsText(r.points) }}</span>
          </div>
          <div v-if="r.found">{{ r.found }}</div>
          <div v-if="ownOf(r)?.steps" class="faint">{{ ownOf(r)!.steps }}</div>
          <div v-for="p in ownOf(r)?.paste ?? []" :key="p.label + p.text" class="paste">
            <span class="faint">{{ p.label }}</span>
            <pre class="raw">{{ p.text }}</pre>
            <v-btn size="small" variant="text" @click="copyText(p.text)">Copy</v-btn>
          </div>
        </div>
      </li>
    </ul>
    <p v-if="hasMore" class="faint">
      The {{ rows.length }} that cost most of {{ countText(total, !filter.words) }}.
      <v-btn size="small" variant="text" @click="more()">Show more</v-btn>
    </p>
  </div>
</template>

<style scoped>
.inside {
  padding: 8px 12px 14px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
}
.prose {
  max-width: 90ch;
  margin: 0;
}
.bulk {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
.bulk > .v-input {
  flex: none;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: flex;
  gap: 6px;
  align-items: start;
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding: 6px 0;
}
li > :first-child {
  flex: none;
}
li.at {
  background: rgb(var(--v-theme-primary), 0.08);
}
.body {
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}
.line {
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
}
.link {
  font-weight: 600;
  text-decoration: underline;
}
.paste {
  display: grid;
  grid-template-columns: minmax(80px, 160px) minmax(0, 1fr) auto;
  gap: 8px;
  align-items: start;
  margin-top: 4px;
}
</style>
