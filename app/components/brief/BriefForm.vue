<script setup lang="ts">
import type { SiteDetail, Version } from '~/types';
import type { Brief } from '#core/facts/brief';
import { quantity } from '#core/text/quantity';
import { BriefDto } from '#core/entry/brief';
import { BRIEF_GROUPS, briefLabel } from '#core/entry/brief-fields';
import { checkDraft, withBlanks } from '#core/entry/check-draft';
import { draftFrom, writeFieldText } from '#core/entry/field-text';
import { readAs } from '#core/entry/validation';
import { hostRecords } from '#core/facts/host-records';
import type { Proposal } from '#core/proposals/propose-brief';
import { readZoneFile } from '#core/formats/zone-file/read';
import { toZoneFile } from '#core/formats/zone-file/write';
import { recordsFromZone } from '#core/formats/brief-zone';

/** The brief of a site, to be changed; saving makes a new version and judges the stored evidence by it. */
const props = defineProps<{ site: SiteDetail }>();
const notes = useNotes();
const stored = computed(() => props.site.brief);
const draft = ref(draftFrom(BRIEF_GROUPS, stored.value?.data ?? {}));
const reasons = ref<Record<string, string>>({ ...stored.value?.data.notWanted });
const wrong = ref('');
const proposals = ref<{ list: Proposal[]; from: string } | null>(null);
const reading = ref(false);
const showVersions = ref(false);
const { faults, others, all, check, whole } = useDraftCheck(BRIEF_GROUPS, BriefDto, draft, () =>
  Object.keys(reasons.value).length ? { notWanted: reasons.value } : {},
);
const state = computed(() => JSON.stringify([draft.value, reasons.value]));
function fill(brief: Brief): void {
  draft.value = draftFrom(BRIEF_GROUPS, brief);
  reasons.value = { ...brief.notWanted };
  all.value = false;
}
const {
  changed,
  isOvertaken,
  begin,
  undo,
  run: saveBrief,
  busy: saving,
  fault: refused,
} = useSaving({
  state: () => state.value,
  save: (brief: Brief, version) =>
    api('/api/sites/:id/brief', {
      params: { id: props.site.id },
      query: { from: version },
      method: 'PUT',
      body: withBlanks(BRIEF_GROUPS, { ...brief, notWanted: brief.notWanted ?? {} }),
    }),
  label: (path) => briefLabel(path.split('.')[0]!),
  fill,
  asForm: async ({ notWanted, ...brief }) => {
    const { data } = await checkDraft(BRIEF_GROUPS, BriefDto, draftFrom(BRIEF_GROUPS, brief));
    return { ...data, ...(notWanted ? { notWanted } : {}) } as Brief;
  },
  // a site without a brief has version 0 of it, which is empty
  newest: () => ({ version: stored.value?.version ?? 0, document: (stored.value?.data ?? {}) as Brief }),
});
const fault = computed(() => wrong.value || refused.value);
function reset(): void {
  wrong.value = '';
  undo();
}
const question = useQuestion();
onBeforeRouteLeave(() => !changed.value || question.leave('the brief'));

const { data: profiles } = useApiQuery('/api/host-profiles', { key: ['host-profiles'] });
const profile = computed(() => profiles.value?.find((p) => p.id === props.site.hostProfileId)?.profile);
const liveUrl = computed(() => props.site.environments.find((p) => p.kind === 'live')?.url ?? '');
const liveHost = computed(() => {
  try {
    return new URL(liveUrl.value).hostname;
  } catch {
    return '';
  }
});
async function save(): Promise<void> {
  const { got, fault: found } = await whole();
  wrong.value = found;
  if (found) return;
  const saved = await saveBrief({ ...got.data, notWanted: reasons.value } as Brief);
  if (!saved) return;
  notes.say(
    `Saved as version ${saved.version}. The stored evidence was judged by it; audit again to look for what is new.`,
  );
}
const { run: bringBack, busy: bringing } = useAction(async (v: Version<Brief>) => {
  const { version } = await api('/api/sites/:id/bring-back', {
    params: { id: props.site.id },
    method: 'POST',
    body: { version: v.version },
  });
  begin({ version, document: v.data });
  notes.say(`What version ${v.version} said is back, as version ${version}.`);
});
const busy = computed(() => saving.value || bringing.value);
async function read(): Promise<void> {
  reading.value = true;
  wrong.value = '';
  const seen = props.site.environments.find((p) => p.id === props.site.shown)?.url ?? liveUrl.value;
  try {
    const a = await api('/api/read-site', {
      method: 'POST',
      body: { url: seen },
    });
    proposals.value = { list: a.proposals, from: a.url };
    if (!a.proposals.length) notes.say('The page says nothing of itself that a brief could use.');
  } catch (error) {
    wrong.value = (error as Error).message;
  } finally {
    reading.value = false;
  }
}
const isFilled = (field: string): boolean =>
  Boolean(draft.value[field]?.trim()) || reasons.value[field] !== undefined;
/** Shows a field and puts the cursor into it. */
function goTo(field: string): void {
  document.getElementById(`field-${field}`)?.querySelector<HTMLElement>('input, textarea')?.focus();
}
function adopt(p: Proposal): void {
  const spec = BRIEF_GROUPS.flatMap((g) => g.fields).find((f) => f.field === p.field);
  if (spec) draft.value = { ...draft.value, [p.field]: writeFieldText(spec.kind, p.value) };
  const { [p.field]: _wanted, ...rest } = reasons.value;
  reasons.value = rest;
}
async function importJson(file: File): Promise<void> {
  try {
    const { value, faults: found } = await readAs(BriefDto, await readJsonFile(file));
    if (found.length) {
      wrong.value = `${file.name}: ${found
        .slice(0, 3)
        .map((f) => f.message)
        .join('; ')}`;
      return;
    }
    fill({ ...value } as Brief);
    notes.say(`${file.name} fills the form. Look at it, then save.`);
  } catch (error) {
    wrong.value = (error as Error).message;
  }
}
async function importZone(file: File): Promise<void> {
  if (file.size > 2_000_000) {
    wrong.value = `${file.name} is larger than 2 MB.`;
    return;
  }
  const { records, left, faults: found } = recordsFromZone(readZoneFile(await file.text(), liveHost.value));
  if (!records.length) {
    wrong.value = `${file.name} holds no record that a brief can expect${found.length ? `: ${found[0]}` : ''}.`;
    return;
  }
  draft.value = { ...draft.value, records: writeFieldText('records', records) };
  notes.say(
    `${quantity(records.length, 'record')} taken${left ? `, ${left} left out (kinds that the host does not set)` : ''}${found.length ? `; ${quantity(found.length, 'line')} could not be read, the first: ${found[0]}` : ''}. Look at them, then save.`,
  );
}
const current = async (): Promise<Brief> => {
  const got = await check();
  return { ...got.data, ...(Object.keys(reasons.value).length ? { notWanted: reasons.value } : {}) } as Brief;
};
async function exportJson(): Promise<void> {
  saveJson(fileName(`${props.site.name} brief`, 'json'), await current());
}
async function exportZone(): Promise<void> {
  const records = (await current()).records ?? [];
  if (!records.length) {
    notes.say('The brief has no records yet.');
    return;
  }
  saveText(fileName(`${props.site.name} records`, 'zone'), toZoneFile(records), 'text/dns');
}
function takeHostRecords(): void {
  draft.value = {
    ...draft.value,
    records: writeFieldText(
      'records',
      hostRecords(profile.value!, draft.value.preferredHost?.trim() || liveHost.value),
    ),
  };
}
</script>

<template>
  <form class="sheet form" novalidate @submit.prevent="save">
    <div class="page-head stick">
      <h2>Brief</h2>
      <span v-if="stored" class="faint"
        >version {{ stored.version }}, saved by {{ stored.savedBy }} on <TimeAt :iso="stored.savedAt" /></span
      ><span class="spring" />
      <v-btn :loading="reading" @click="read">Read from the site</v-btn>
      <v-btn :aria-expanded="showVersions" @click="showVersions = !showVersions">Versions</v-btn>
      <v-menu location="bottom end"
        ><template #activator="{ props: p }"><v-btn v-bind="p">Files ▾</v-btn></template>
        <MenuList label="Files"
          ><MenuItem title="Save as JSON" @click="exportJson" /><MenuItem
            title="Save the records as a zone file"
            @click="exportZone" /></MenuList
      ></v-menu>
      <v-btn v-if="changed" variant="text" @click="reset">Undo changes</v-btn
      ><v-btn type="submit" color="primary" variant="flat" :loading="busy" :disabled="!changed">Save</v-btn>
    </div>
    <p v-if="isOvertaken" role="status">
      {{ stored?.savedBy }} saved version {{ stored?.version }} while you were at it. Saving joins both.
    </p>
    <p class="faint">
      What is officially so. A field left blank makes its checks untested; one that is blank on purpose says
      why (⊘).
    </p>
    <p class="bring">
      <FilePick label="Fill from a JSON file" accept=".json,application/json" @chosen="importJson" /><FilePick
        label="Records from a zone file"
        accept=".zone,.txt,text/dns,text/plain"
        @chosen="importZone"
      /><v-btn v-if="profile?.records?.length" size="small" variant="text" @click="takeHostRecords"
        >Records that {{ site.hostProfile }} asks for</v-btn
      >
    </p>
    <p v-for="f in [fault, ...(all ? others : [])].filter(Boolean)" :key="f" class="fray" role="alert">
      {{ f }}
    </p>
    <ProposalList
      v-if="proposals?.list.length"
      :proposals="proposals.list"
      :from="proposals.from"
      @adopt="adopt"
      @close="proposals = null"
    />
    <section v-if="showVersions" class="old" aria-label="Versions">
      <VersionList
        :of="{ route: '/api/sites/:id/briefs', id: site.id, key: ['site', site.id, 'briefs'] }"
        :label="briefLabel"
        :busy="busy"
        @back="bringBack($event as Version<Brief>)"
      />
    </section>
    <BlankList :site-id="site.id" :environment-id="site.shown" :filled="isFilled" @adopt="adopt" @go="goTo" />
    <FieldGroups
      v-model="draft"
      v-model:reasons="reasons"
      :groups="BRIEF_GROUPS"
      :faults="faults"
      :all="all"
    />
  </form>
</template>

<style scoped>
.form {
  padding: 0 16px 16px;
  display: grid;
  gap: 12px;
  max-width: 1080px;
}
.form > * {
  min-width: 0;
}
.stick {
  margin: 0;
  padding: 12px 0;
  position: sticky;
  top: 174px;
  background: rgb(var(--v-theme-surface));
  z-index: 5;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
.bring {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px;
  margin: -6px 0 0 -10px;
}
.old {
  background: rgb(var(--v-theme-background));
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: 4px;
  padding: 4px 12px 12px;
}
@media (max-width: 700px) {
  .stick {
    position: static;
  }
}
</style>
