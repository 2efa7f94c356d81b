<script setup lang="ts">
import type { AuditRow, Environment } from '~/types';
import { mdiDotsVertical } from '@mdi/js';
import { FINDING_FORMAT_NAMES, FINDING_FORMATS } from '#core/formats/findings/index';
import { SITUATION_WORDS } from '#core/facts/situation';

/** Audits of an environment over time as a stack of thin bands. */
const props = defineProps<{ siteId: number; environment: Environment }>();
const { rows, fault, hasMore, more, isFetching } = useApiInfiniteQuery('/api/environments/:id/audits', {
  key: () => ['site', props.siteId, 'history', props.environment.id],
  params: () => ({ id: props.environment.id }),
});
const FINDINGS = FINDING_FORMAT_NAMES.map((as) => ({
  as,
  title: `Findings, as ${FINDING_FORMATS[as].title}`,
}));
const { data: shown } = useApiQuery('/api/sites/:id/report/shown', {
  key: () => ['site', props.siteId, 'report shown'],
  params: () => ({ id: props.siteId }),
});
/** Yeses that were said to this environment. */
const approvals = computed(() =>
  (shown.value?.approvals ?? []).filter((a) => a.environmentId === props.environment.id),
);
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
const HEADERS = [
  { title: 'When', key: 'at' },
  { title: 'Band', key: 'band' },
  { title: 'Score', key: 'score' },
  { title: 'Gate', key: 'gate' },
  { title: 'Why it changed, and by what it was judged', key: 'why' },
  { title: '', key: 'act' },
].map((h) => ({ ...h, sortable: false }));
const hasFiles = (a: AuditRow): boolean => a.status === 'done' && a.cause === 'audit';
/** The ledger rests on the newest audit; one that is running is stopped, not deleted. */
const canDelete = (a: AuditRow): boolean =>
  a.auditId !== props.environment.audit?.id && !['queued', 'running'].includes(a.status);
const question = useQuestion();
const notes = useNotes();
const { run: remove } = useAction(async (a: AuditRow) => {
  if (!(await question.remove(`the audit of ${moment(a.at)}`, 'Its evidence and findings go with it.')))
    return;
  await api('/api/audits/:id', { params: { id: a.auditId }, method: 'DELETE' });
  notes.say('The audit is deleted.');
});
</script>

<template>
  <ApprovalList v-if="approvals.length" :approvals="approvals" class="yeses" />
  <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  <v-data-table
    v-else-if="rows"
    class="sheet history"
    :headers="HEADERS"
    :items="rows"
    :items-per-page="-1"
    hide-default-footer
    density="compact"
    aria-label="History"
    no-data-text="No audit yet. Audit now makes the first."
  >
    <template #item="{ item: a }">
      <tr>
        <td class="num when"><TimeAt :iso="a.at" /></td>
        <template v-if="a.status === 'done'">
          <td class="band"><BandStrip :band="a.band" :width="420" :height="8" /></td>
          <td class="num">
            <b>{{ a.score ?? '–' }}</b><span v-if="change(a)" class="faint change">{{ change(a) }}</span>
          </td>
          <td>
            <GateWord :gate="a.gate" /><span class="faint">{{
              (a.gateNote ?? '').slice((a.gate ?? '').length)
            }}</span>
          </td>
        </template>
        <td v-else colspan="3" class="faint">{{ a.status }}{{ a.error ? `: ${a.error}` : '' }}</td>
        <td class="why">
          <div v-if="a.status === 'done'">{{ said(a) }}</div>
          <div class="faint" :title="judgedBy(a)">
            {{ SITUATION_WORDS[a.situation] }}, {{ a.by
            }}<template v-if="a.judgedBy"> · {{ judgedBy(a) }}</template>
          </div>
        </td>
        <td class="act">
          <v-menu v-if="hasFiles(a) || canDelete(a)" location="bottom end"
            ><template #activator="{ props: menu }"
              ><v-btn
                v-bind="menu"
                size="small"
                variant="text"
                :icon="mdiDotsVertical"
                :aria-label="`${hasFiles(a) ? `Evidence of ${moment(a.at)} as a file` : `Audit of ${moment(a.at)}`}`"
            /></template>
            <MenuList label="Files of this audit">
              <template v-if="hasFiles(a)">
                <MenuItem
                  title="Pages"
                  subtitle="as this audit saw them"
                  :to="{
                    query: { ...$route.query, tab: 'pages', audit: String(a.auditId), at: a.at },
                  }"
                />
                <MenuItem
                  v-for="f in FINDINGS"
                  :key="f.as"
                  :href="`/api/audits/${a.auditId}/findings?as=${f.as}`"
                  :title="f.title"
                  download
                />
                <MenuItem
                  v-for="f in FILES"
                  :key="f.as"
                  :href="`/api/audits/${a.auditId}/evidence?as=${f.as}`"
                  :title="f.title"
                  :subtitle="f.what"
                  download
                />
              </template>
              <MenuItem v-if="canDelete(a)" title="Delete this audit" @click="remove(a)" /></MenuList
          ></v-menu>
        </td>
      </tr>
    </template>
  </v-data-table>
  <v-btn v-if="hasMore" size="small" variant="text" :loading="isFetching" @click="more()">Older ones</v-btn>
  <v-progress-linear v-if="!rows && !fault" indeterminate color="primary" aria-label="Loading" />
</template>

<style scoped>
.yeses {
  margin-bottom: 14px;
}
.when {
  white-space: nowrap;
}
.band {
  min-width: 160px;
  width: 26%;
}
.band :deep(svg) {
  width: 100%;
}
.why {
  line-height: 1.3;
  font-size: 13px;
  padding-block: 4px !important;
}
.change {
  font-size: 12px;
  margin-left: 6px;
}
</style>
