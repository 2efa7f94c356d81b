<script setup lang="ts">
import { quantity } from '#core/text/quantity';
import { mdiMagnify } from '@mdi/js';
import { CLOSED_STATES } from '#core/facts/fix';
import type { FixRow } from '~/types';

/** Fixes as a simple list, over all sites or of one; a row opens the work at the side. */
const props = defineProps<{ siteId?: number; version?: number; startWords?: string }>();
const audits = useAudits();
const session = useSession();
const rows = ref<FixRow[] | null>(null);
const fault = ref('');
const words = ref(props.startWords ?? '');
const closed = ref(false);
const mine = ref(false);
const at = ref(0);
async function load(): Promise<void> {
  try {
    rows.value = await api('/api/fixes', {
      query: {
        ...(props.siteId ? { site: String(props.siteId) } : {}),
        ...(closed.value ? { closed: '1' } : {}),
      },
    });
    fault.value = '';
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
onMounted(load);
watch([() => props.version, closed, () => audits.ended], load);
watch(
  () => props.startWords,
  (w) => {
    words.value = w ?? '';
  },
);
const listed = computed(() => {
  const parts = words.value.toLowerCase().split(/\s+/).filter(Boolean);
  return (rows.value ?? []).filter(
    (r) =>
      (!mine.value || r.ownerId === session.me?.id) &&
      parts.every((w) =>
        `${r.title} ${r.check} ${r.site} ${r.client} ${r.environment} ${r.state} ${r.severity} ${r.owner ?? ''} ${r.firstPlace}`
          .toLowerCase()
          .includes(w),
      ),
  );
});
const current = computed(() => listed.value.find((r) => r.id === at.value));
const sites = computed(() => new Set(listed.value.map((r) => r.siteId)).size);
const today = new Date().toISOString().slice(0, 10);
function keys(e: KeyboardEvent): void {
  const el = e.target as HTMLElement;
  if (
    e.ctrlKey ||
    e.metaKey ||
    /^(INPUT|TEXTAREA|SELECT)$/.test(el.tagName) ||
    el.closest('.v-overlay-container')
  )
    return;
  const i = listed.value.findIndex((r) => r.id === at.value);
  if (e.key === 'j' || e.key === 'ArrowDown') {
    e.preventDefault();
    at.value = listed.value[Math.min(i + 1, listed.value.length - 1)]?.id ?? 0;
  } else if (e.key === 'k' || e.key === 'ArrowUp') {
    e.preventDefault();
    at.value = listed.value[Math.max(i - 1, 0)]?.id ?? 0;
  } else if (e.key === 'Escape') at.value = 0;
  void nextTick(() => document.getElementById(`fix-${at.value}`)?.scrollIntoView({ block: 'nearest' }));
}
onMounted(() => window.addEventListener('keydown', keys));
onBeforeUnmount(() => window.removeEventListener('keydown', keys));
</script>

<template>
  <div>
    <div class="page-head">
      <span v-if="rows" class="faint num"
        >{{ quantity(listed.length, 'fix')
        }}<template v-if="!siteId"> on {{ quantity(sites, 'site') }}</template></span
      >
      <span class="spring" />
      <v-checkbox v-model="mine" label="Mine only" /><v-checkbox
        v-model="closed"
        label="Verified and gone too"
      />
      <v-text-field
        v-model="words"
        class="filter"
        placeholder="Filter by words"
        aria-label="Filter fixes by words"
        :prepend-inner-icon="mdiMagnify"
        clearable
      />
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <div v-else-if="rows" class="split" :class="{ open: current }">
      <div class="sheet list" role="grid" aria-label="Fixes">
        <div class="row head" role="row">
          <span>Check that failed</span><span v-if="!siteId" class="site">Site</span
          ><span v-if="siteId" class="environment">Environment</span><span>State</span
          ><span class="owner">Owner</span><span class="due">Due</span
          ><span class="right places">Places</span>
        </div>
        <div
          v-for="r in listed"
          :id="`fix-${r.id}`"
          :key="r.id"
          class="row"
          role="row"
          :aria-selected="r.id === at"
          :class="{ at: r.id === at, nosite: siteId }"
          tabindex="0"
          @click="at = r.id"
          @keydown.enter="at = r.id"
        >
          <CheckTitle :title="r.title" :severity="r.severity" :open="!CLOSED_STATES.has(r.state)" />
          <span v-if="!siteId" class="cut site"
            >{{ r.site }}<span class="faint">, {{ r.environment.toLowerCase() }}</span></span
          ><span v-if="siteId" class="cut faint environment">{{ r.environment }}</span>
          <span class="cut"
            >{{ r.state
            }}<span v-if="r.returns" class="fray" title="times it came back"> ↺{{ r.returns }}</span></span
          ><span class="cut owner" :class="{ faint: !r.owner }">{{ r.owner ?? 'nobody' }}</span>
          <span
            class="num due"
            :class="{ fray: r.dueDate && r.dueDate < today && !CLOSED_STATES.has(r.state) }"
            >{{ r.dueDate ?? '' }}</span><span class="right num faint places">{{ r.places || '' }}</span>
        </div>
        <div v-if="!listed.length" class="empty">
          <p>
            {{
              rows.length
                ? 'No fix matches.'
                : 'No open fixes. Faults that an audit finds appear here and stay until a later audit sees them gone.'
            }}
          </p>
        </div>
      </div>
      <aside v-if="current" class="sheet side" aria-label="Fix">
        <h2>{{ current.title }}</h2>
        <p class="faint">
          <NuxtLink :to="`/sites/${current.siteId}?environment=${current.environmentId}`"
            >{{ current.site }}, {{ current.environment }}</NuxtLink
          >
          · {{ current.severity }}
        </p>
        <FixWork :id="current.id" :key="current.id" @changed="load" />
      </aside>
    </div>
    <v-progress-linear v-else indeterminate color="primary" aria-label="Loading" />
  </div>
</template>

<style scoped>
.filter {
  max-width: 240px;
}
.split {
  display: grid;
  gap: 12px;
  grid-template-columns: minmax(0, 1fr);
  align-items: start;
}
.split.open {
  grid-template-columns: minmax(0, 1fr) 420px;
}
.row {
  display: grid;
  grid-template-columns: minmax(200px, 1.6fr) minmax(160px, 1.2fr) 120px 110px 90px 50px;
  gap: 12px;
  align-items: center;
  min-height: 34px;
  padding: 0 12px;
  cursor: pointer;
}
.row + .row {
  border-top: 1px solid rgb(var(--v-theme-rule));
}
.row.nosite,
.list:has(.nosite) .head {
  grid-template-columns: minmax(200px, 1.6fr) 80px 120px 110px 90px 50px;
}
.head {
  color: rgb(var(--v-theme-faint));
  font-weight: 600;
  cursor: default;
}
.row.at {
  background: rgb(var(--v-theme-primary), 0.12);
}
.row:not(.head):hover {
  background: rgb(var(--v-theme-primary), 0.05);
}
.right {
  text-align: right;
}
.side {
  padding: 14px;
  display: grid;
  gap: 10px;
  position: sticky;
  top: 60px;
  max-height: calc(100vh - 76px);
  overflow: auto;
}
.split.open .row {
  grid-template-columns: minmax(180px, 1.6fr) minmax(100px, 1fr) 110px;
}
.split.open .environment,
.split.open .owner,
.split.open .due,
.split.open .places {
  display: none;
}
.split.open .row.nosite,
.split.open .list:has(.nosite) .head {
  grid-template-columns: minmax(180px, 1.6fr) 110px;
}
@media (max-width: 900px) {
  .row,
  .split.open .row {
    grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr) 92px;
  }
  .environment,
  .owner,
  .due,
  .places {
    display: none;
  }
  .split.open {
    grid-template-columns: minmax(0, 1fr);
  }
  .side {
    order: -1;
    position: static;
    max-height: none;
  }
}
</style>
