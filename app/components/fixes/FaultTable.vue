<script setup lang="ts">
import { quantity } from '#core/text/quantity';
import { pointsText } from '#core/text/points';
import { placesText } from '#core/text/scope-words';
import type { FixFilter } from '~/composables/fix-filter';
import type { FixRow } from '~/types';

/** The same fault on many sites is one afternoon's work: faults over all sites, worst first. */
const props = defineProps<{ filter: FixFilter }>();
const emit = defineEmits<{ open: [fix: FixRow]; count: [total: number] }>();
const at = defineModel<number>('at', { required: true });
const expanded = ref<string[]>([]);
const { data: faults, fault } = useApiQuery('/api/fixes/faults', {
  key: ['fixes'],
  query: () => ({ ...props.filter }),
});
watch(
  faults,
  (list) =>
    list &&
    emit(
      'count',
      list.reduce((n, f) => n + f.fixes, 0),
    ),
  { immediate: true },
);
const HEADERS = [
  { title: 'Fault', key: 'title' },
  { title: 'Sites', key: 'sites', align: 'end' as const },
  { title: 'Touches', key: 'failing' },
  { title: 'Points', key: 'points', align: 'end' as const },
  { title: 'Gate', key: 'gates' },
];
function toggle(check: string): void {
  expanded.value = expanded.value.includes(check)
    ? expanded.value.filter((c) => c !== check)
    : [...expanded.value, check];
}
</script>

<template>
  <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  <v-data-table
    v-else-if="faults"
    v-model:expanded="expanded"
    class="sheet"
    :headers="HEADERS"
    :items="faults"
    item-value="check"
    density="compact"
    :items-per-page="-1"
    hide-default-footer
    aria-label="Faults"
    no-data-text="No open fixes. Faults that an audit finds appear here and stay until a later audit sees them gone."
  >
    <template #item="{ item: f, isExpanded, internalItem }">
      <tr :class="{ open: isExpanded(internalItem) }" @click="toggle(f.check)">
        <td class="what">
          <button
            type="button"
            class="title"
            :aria-expanded="isExpanded(internalItem)"
            @click.stop="toggle(f.check)"
          >
            {{ isExpanded(internalItem) ? '▾' : '▸' }} {{ f.title }}</button
          ><span :class="f.severity === 'blocker' ? 'fray' : 'faint'">{{ ' ' }}{{ f.severity }}</span>
        </td>
        <td class="num right sites">{{ f.sites }}</td>
        <td class="num faint">{{ placesText(f.scope, 0, f.failing) }}</td>
        <td class="num right fray">{{ f.points ? pointsText(f.points) : '' }}</td>
        <td class="fray">{{ f.gates ? `holds ${quantity(f.gates, 'gate')}` : '' }}</td>
      </tr>
    </template>
    <template #expanded-row="{ item: f, columns }">
      <tr class="more">
        <td :colspan="columns.length">
          <FaultFixes v-model:at="at" :check="f.check" :filter="filter" @open="emit('open', $event)" />
        </td>
      </tr>
    </template>
  </v-data-table>
  <v-progress-linear v-else indeterminate color="primary" aria-label="Loading" />
</template>

<style scoped>
.title {
  font-weight: 600;
  text-align: left;
}
.what {
  padding-block: 6px !important;
}
.right {
  text-align: right;
}
tbody tr {
  cursor: pointer;
}
.more,
.more td {
  cursor: default;
  padding: 0 !important;
}
</style>
