<script setup lang="ts">
import type { AuditRow, Environment } from '~/types';
import { SITUATION_WORDS } from '#core/facts/situation';

/** Audits of an environment over time as a stack of thin bands. */
const props = defineProps<{ environment: Environment; version: number }>();
const rows = ref<AuditRow[] | null>(null);
const fault = ref('');
async function load(): Promise<void> {
  try {
    rows.value = await api('/api/environments/:id/audits', { params: { id: props.environment.id } });
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
const FILES = [
  { as: 'json', title: 'Everything, as JSON', what: 'to re-evaluate on the command line' },
  { as: 'har', title: 'HTTP, as HAR 1.2', what: 'each request with its headers and times' },
  { as: 'zone', title: 'DNS, as a zone file', what: 'what each name server said' },
];
/** What made this verdict differ from the one before. */
const said = (a: AuditRow): string =>
  a.reasons.length ? a.reasons.join(', ') : a.cause === 'audit' ? 'audited' : a.cause;
function judgedBy(a: AuditRow): string {
  const j = a.judgedBy;
  return j
    ? [
        j.checklist && `checklist ${j.checklist}`,
        j.brief && `brief ${j.brief}`,
        j.profile && `host profile ${j.profile}`,
        j.catalogue && `catalogue ${j.catalogue}`,
      ]
        .filter(Boolean)
        .join(', ')
    : '';
}
const change = (a: AuditRow): string =>
  a.score === null || a.scoreBefore === null || a.score === a.scoreBefore
    ? ''
    : `${a.score > a.scoreBefore ? '+' : '−'}${Math.abs(a.score - a.scoreBefore)}`;
onMounted(load);
watch(() => props.version, load);
</script>

<template>
  <div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <div v-else-if="rows && !rows.length" class="sheet empty">
      <p>No audit yet. <b>Audit now</b> makes the first.</p>
    </div>
    <div v-else-if="rows" class="sheet">
      <div v-for="a in rows" :key="a.id" class="row">
        <span class="num when">{{ moment(a.at) }}</span>
        <template v-if="a.status === 'done'"
          ><BandStrip :band="a.band" :width="420" :height="8" class="b" /><b class="num"
            >{{ a.score ?? '–' }}<span v-if="change(a)" class="faint change">{{ change(a) }}</span></b
          ><span class="cut"
            ><GateWord :gate="a.gate" /><span class="faint">{{
              (a.gateNote ?? '').slice((a.gate ?? '').length)
            }}</span></span
          ></template
        >
        <span v-else class="broken faint">{{ a.status }}{{ a.error ? `: ${a.error}` : '' }}</span>
        <span class="why"
          ><span v-if="a.status === 'done'" class="cut">{{ said(a) }}</span
          ><span class="faint cut" :title="judgedBy(a)"
            >{{ SITUATION_WORDS[a.situation] }}, {{ a.by
            }}<template v-if="a.judgedBy"> · {{ judgedBy(a) }}</template></span
          ></span
        >
        <v-menu v-if="a.status === 'done' && a.cause === 'audit'"
          ><template #activator="{ props: menu }"
            ><button
              v-bind="menu"
              type="button"
              class="faint files"
              :aria-label="`Evidence of ${moment(a.at)} as a file`"
            >
              Evidence ▾
            </button></template
          >
          <v-list density="compact"
            ><v-list-item
              v-for="f in FILES"
              :key="f.as"
              :href="`/api/audits/${a.auditId}/evidence?as=${f.as}`"
              :title="f.title"
              :subtitle="f.what"
              download /></v-list></v-menu
        ><span v-else />
      </div>
    </div>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 152px minmax(120px, 280px) 64px minmax(120px, 1fr) minmax(220px, 1.4fr) 90px;
  gap: 14px;
  align-items: center;
  min-height: 44px;
  padding: 0 12px;
}
.row + .row {
  border-top: 1px solid rgb(var(--v-theme-rule));
}
.b {
  width: 100%;
}
.why {
  display: grid;
  line-height: 1.3;
  font-size: 13px;
  min-width: 0;
}
.change {
  font-weight: 400;
  font-size: 12px;
  margin-left: 6px;
}
.broken {
  grid-column: 2 / 5;
}
.files {
  text-align: right;
}
@media (max-width: 800px) {
  .row {
    grid-template-columns: 120px minmax(60px, 1fr) 32px 80px;
    padding: 6px 10px;
  }
  .why,
  .row > .cut {
    display: none;
  }
}
</style>
