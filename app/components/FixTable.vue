<script setup lang="ts">
import { CLOSED_STATES } from '#core/facts/fix';
import { pointsText } from '#core/text/points';
import { placesText } from '#core/text/scope-words';
import type { FixRow } from '~/types';
import type { FixFilter } from '~/composables/fix-filter';

/** Fixes one by one, a window at a time; a row opens the work at the side. */
const props = defineProps<{
  filter: FixFilter;
  sort: 'worst' | 'site' | 'person' | 'due';
  version: number;
}>();
const emit = defineEmits<{ open: [fix: FixRow]; count: [total: number] }>();
const at = defineModel<number>('at', { required: true });
const chosen = defineModel<number[]>('chosen', { required: true });

const PER_PAGE = 50;
const page = ref(1);
const rows = ref<FixRow[]>([]);
const total = ref(0);
const loading = ref(true);
const fault = ref('');
async function load(): Promise<void> {
  loading.value = true;
  try {
    const answer = await api('/api/fixes', {
      query: { ...props.filter, sort: props.sort, limit: PER_PAGE, offset: (page.value - 1) * PER_PAGE },
    });
    rows.value = answer.rows;
    total.value = answer.total;
    fault.value = '';
    emit('count', answer.total);
  } catch (error) {
    fault.value = (error as Error).message;
  } finally {
    loading.value = false;
  }
}
watch(
  () => [props.filter, props.sort],
  () => {
    page.value = 1;
    void load();
  },
  { immediate: true, deep: true },
);
watch([page, () => props.version], load);

const HEADERS = [
  { title: 'Fault, and what was found', key: 'title' },
  { title: 'Site', key: 'site' },
  { title: 'Touches', key: 'touches' },
  { title: 'Points', key: 'points', align: 'end' as const },
  { title: 'State', key: 'state' },
  { title: 'Owner', key: 'owner' },
  { title: 'Due', key: 'dueDate' },
].map((h) => ({ ...h, sortable: false }));
/** Rows come sorted, so that each group stands under one heading. */
const GROUPS = { site: (r: FixRow) => r.site, person: (r: FixRow) => r.owner ?? 'nobody' } as const;
const groupOf = computed(() =>
  props.sort === 'site' || props.sort === 'person' ? GROUPS[props.sort] : undefined,
);
function heading(r: FixRow, index: number): string {
  if (!groupOf.value) return '';
  const before = rows.value[index - 1];
  return before && groupOf.value(before) === groupOf.value(r) ? '' : groupOf.value(r);
}
const OWN_COLUMN = { site: 'site', person: 'owner', worst: '', due: '' } as const;
const headers = computed(() => HEADERS.filter((h) => h.key !== OWN_COLUMN[props.sort]));
const today = new Date().toISOString().slice(0, 10);
const isLate = (r: FixRow): boolean => Boolean(r.dueDate && r.dueDate < today && !CLOSED_STATES.has(r.state));
function pick(r: FixRow): void {
  at.value = r.id;
  emit('open', r);
}
/** Steps to the next or last row. */
function step(by: 1 | -1): void {
  const i = rows.value.findIndex((r) => r.id === at.value);
  const next = rows.value[Math.min(rows.value.length - 1, Math.max(0, i + by))];
  if (!next) return;
  pick(next);
  void nextTick(() => document.getElementById(`fix-${next.id}`)?.scrollIntoView({ block: 'nearest' }));
}
useScreenKeys({ j: () => step(1), k: () => step(-1), arrowdown: () => step(1), arrowup: () => step(-1) });
</script>

<template>
  <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  <v-data-table-server
    v-else
    v-model="chosen"
    v-model:page="page"
    class="sheet fixes"
    :headers="headers"
    :items="rows"
    :items-length="total"
    :items-per-page="PER_PAGE"
    :loading="loading"
    density="compact"
    show-select
    aria-label="Fixes"
    no-data-text="No fix matches."
  >
    <template #item="{ item: r, index, isSelected, internalItem, toggleSelect }">
      <tr v-if="heading(r, index)" class="group">
        <th :colspan="headers.length + 1" scope="rowgroup">{{ heading(r, index) }}</th>
      </tr>
      <tr :id="`fix-${r.id}`" :class="{ at: r.id === at }" :aria-selected="r.id === at" @click="pick(r)">
        <td @click.stop>
          <v-checkbox-btn
            :model-value="isSelected(internalItem)"
            density="compact"
            :aria-label="`Choose ${r.title}, ${r.site}`"
            @update:model-value="toggleSelect(internalItem)"
          />
        </td>
        <td class="what">
          <button type="button" class="title" @click.stop="pick(r)">{{ r.title }}</button>
          <span :class="r.severity === 'blocker' ? 'fray' : 'faint'">&nbsp;{{ r.severity }}</span>
          <div class="faint found">{{ r.found }}</div>
        </td>
        <td v-if="sort !== 'site'">
          {{ r.site }}<span class="faint">, {{ r.environment.toLowerCase() }}</span>
        </td>
        <td class="num faint touches">{{ r.failing > 1 ? placesText(r.scope, 0, r.failing) : '' }}</td>
        <td class="num right" :class="{ fray: r.points }">{{ r.points ? pointsText(r.points) : '' }}</td>
        <td>
          {{ r.state }}<span v-if="r.returns" class="fray" title="times it came back"> ↺{{ r.returns }}</span>
        </td>
        <td v-if="sort !== 'person'" :class="{ faint: !r.owner }">{{ r.owner ?? 'nobody' }}</td>
        <td class="num" :class="{ fray: isLate(r) }">{{ r.dueDate ? dayText(r.dueDate) : '' }}</td>
      </tr>
    </template>
    <template #bottom>
      <v-pagination
        v-if="total > PER_PAGE"
        v-model="page"
        :length="Math.ceil(total / PER_PAGE)"
        density="comfortable"
        size="small"
      />
    </template>
  </v-data-table-server>
</template>

<style scoped>
.title {
  font-weight: 600;
  text-align: left;
}
.found {
  font-size: 13px;
  line-height: 1.3;
  overflow: hidden;
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow-wrap: anywhere;
}
.what {
  padding-block: 4px !important;
  min-width: 260px;
}
.touches {
  white-space: nowrap;
}
.right {
  text-align: right;
}
tr.at {
  background: rgb(var(--v-theme-primary), 0.12);
}
tbody tr {
  cursor: pointer;
}
.group th {
  text-align: left;
  font-weight: 650;
  background: rgb(var(--v-theme-background));
}
</style>
