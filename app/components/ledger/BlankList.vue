<script setup lang="ts">
import { briefLabel } from '#core/entry/brief-fields';
import { quantity } from '#core/text/quantity';
import type { Proposal } from '#core/proposals/propose-brief';

/** The blanks of the brief that cost most, each with what the last audit saw for it. */
const props = defineProps<{ siteId: number; environmentId: number; filled: (field: string) => boolean }>();
const emit = defineEmits<{ adopt: [proposal: Proposal]; go: [field: string] }>();
const FIRST = 5;
const all = ref(false);
const { data: blanks } = useApiQuery('/api/environments/:id/blanks', {
  key: () => ['site', props.siteId, 'blanks', props.environmentId],
  params: () => ({ id: props.environmentId }),
  when: () => props.environmentId > 0,
});
const left = computed(() => (blanks.value ?? []).filter((b) => !props.filled(b.field)));
const shown = computed(() => (all.value ? left.value : left.value.slice(0, FIRST)));
const waits = (b: (typeof left.value)[number]): string =>
  `${quantity(b.checks, 'check')}${b.blockers ? `, ${quantity(b.blockers, 'blocker')} among them,` : ''} wait${b.checks === 1 ? 's' : ''} for it`;
</script>

<template>
  <section v-if="left.length" class="blanks" aria-label="Blanks that cost most">
    <h3>Blanks that cost most</h3>
    <ul>
      <li v-for="b in shown" :key="b.field">
        <button type="button" class="link" @click="emit('go', b.field)">{{ briefLabel(b.field) }}</button>:
        {{ waits(b) }}.
        <template v-if="b.seen">
          The audit saw <b>{{ b.seen.shown }}</b><span class="faint">, {{ b.seen.from }}</span>
          <v-btn
            size="small"
            variant="text"
            color="primary"
            :aria-label="`Use for ${briefLabel(b.field)}`"
            @click="emit('adopt', b.seen)"
            >Use it</v-btn
          >
        </template>
      </li>
    </ul>
    <button v-if="left.length > FIRST && !all" type="button" class="link" @click="all = true">
      All {{ left.length }}
    </button>
  </section>
</template>

<style scoped>
.blanks {
  border-left: 3px solid rgb(var(--v-theme-primary));
  padding: 2px 12px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0;
  display: grid;
  gap: 2px;
}
li {
  overflow-wrap: anywhere;
}
.link {
  text-decoration: underline;
  font-weight: 600;
}
</style>
