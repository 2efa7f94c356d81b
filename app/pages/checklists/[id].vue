<script setup lang="ts">
import { mdiMagnify, mdiPlus } from '@mdi/js';
import { readChecklist } from '#core/entry/checklist';
import type { Checklist, OwnCheck } from '#core/facts/checklist';
import { matching } from '#core/text/matching';
import { SECTIONS, SECTION_TITLES, SEVERITY_WEIGHT, type Section } from '#core/facts/finding';
import { SITUATIONS } from '#core/facts/situation';
import { checklistMarkdown } from '#core/formats/checklist-markdown';
import {
  checklistOf,
  isChanged,
  moveRow,
  ownId,
  ownRow,
  rowsOf,
  type ChecklistDraftRow,
} from '~/composables/checklist-draft';

/** The composer: what is asked, how gravely, in which order, within which limits, in whose words. */
const route = useRoute();
const notes = useNotes();
const question = useQuestion();
const id = Number(route.params.id);
const { data: detail, fault: unread } = useApiQuery('/api/checklists/:id', {
  key: ['checklists', id],
  params: { id },
});
const rows = ref<ChecklistDraftRow[]>([]);
const about = reactive({ name: '', description: '' });
const wrong = ref('');
const rowFaults = ref<Record<string, string[]>>({});
const words = ref('');
type Show = 'all' | 'on' | 'changed' | 'hand';
const SHOWS: { key: Show; label: string }[] = [
  { key: 'all', label: 'All' },
  { key: 'on', label: 'Asked' },
  { key: 'changed', label: 'Changed' },
  { key: 'hand', label: 'Manual' },
];
const only = ref<Show>('all');
const open = ref('');
const panel = ref<'' | 'ahead' | 'assign' | 'versions'>('');
const again = ref(false);
useHead({ title: computed(() => `${detail.value?.name ?? 'Checklist'} – Armband`) });
const composed = (): Checklist =>
  checklistOf(rows.value, { ...about, version: detail.value?.checklist.version ?? 1 });
const fixed = computed(() => detail.value?.builtIn ?? true);
function fill(list: Checklist): void {
  rows.value = rowsOf(list);
  about.name = list.name;
  about.description = list.description ?? '';
  rowFaults.value = {};
}
/** What the rows describe; its version is the server's to count. */
const described = (
  from: readonly ChecklistDraftRow[],
  { name, description = '' }: Pick<Checklist, 'name' | 'description'>,
) => checklistOf(from, { name, description, version: 1 });
const {
  changed,
  isOvertaken,
  undo,
  forget,
  run: saveList,
  busy,
  fault: refused,
} = useSaving({
  state: () => JSON.stringify(described(rows.value, about)),
  save: (list: Checklist, version) =>
    api('/api/checklists/:id', { params: { id }, method: 'PUT', query: { from: version }, body: list }),
  label(path) {
    const [field, check] = [path.split('.')[0]!, path.split('.').slice(1).join('.')];
    const row = rows.value.find((r) => r.id === check || check.startsWith(`${r.id}.`));
    return row ? row.title || row.catalogueTitle : field;
  },
  fill,
  asForm: (list) => described(rowsOf(list), list),
  newest: () =>
    detail.value && { version: detail.value.version, document: detail.value.checklist as Checklist },
});
const fault = computed(() => unread.value || wrong.value || refused.value);
onBeforeRouteLeave(() => fixed.value || !changed.value || question.leave('the checklist'));

const SHOWN: Record<Show, (r: ChecklistDraftRow) => boolean> = {
  all: () => true,
  on: (r) => r.on,
  changed: (r) => isChanged(r),
  hand: (r) => r.byHand,
};
const matches = computed(() => {
  const find = matching(words.value ?? '');
  return (r: ChecklistDraftRow): boolean =>
    SHOWN[only.value](r) && find(`${r.id} ${r.title} ${r.catalogueTitle} ${r.severity}`);
});
const sections = computed(() =>
  SECTIONS.map((s) => {
    const own = rows.value.filter((r) => r.section === s);
    return {
      key: s,
      list: own.filter(matches.value),
      on: own.filter((r) => r.on).length,
      all: own.length,
      weight: own
        .filter((r) => r.on)
        .reduce((n, r) => n + (Number(r.weight) || SEVERITY_WEIGHT[r.severity]), 0),
    };
  }),
);
const tally = computed(() => {
  const on = rows.value.filter((r) => r.on);
  return `${on.length} of ${rows.value.length} checks, ${on.filter((r) => r.severity === 'blocker').length} blockers, ${on.filter((r) => r.byHand).length} manual`;
});
function put(row: ChecklistDraftRow): void {
  rows.value = rows.value.map((r) => (r.id === row.id ? row : r));
}
function move(row: ChecklistDraftRow, by: number): void {
  const own = rows.value.filter((r) => r.section === row.section);
  const i = own.findIndex((r) => r.id === row.id);
  if (i + by < 0 || i + by >= own.length) return;
  rows.value = moveRow(rows.value, row.id, by < 0 ? own[i - 1]!.id : own[i + 2]?.id);
  void nextTick(() => document.querySelector<HTMLElement>(`[data-check="${row.id}"] .grip`)?.focus());
}
/** @param list the rows of a section as they are shown, of which one was dragged */
function dragged(list: readonly ChecklistDraftRow[], from: number, to: number): void {
  // dropped on a row below, it goes behind that row: so the end can be reached too
  rows.value = moveRow(rows.value, list[from]!.id, from < to ? list[to + 1]?.id : list[to]!.id);
}
function addOwn(section: Section): void {
  const made: OwnCheck = {
    id: ownId(
      `${section} ${rows.value.filter((r) => r.own).length + 1}`,
      new Set(rows.value.map((r) => r.id)),
    ),
    section,
    title: 'A check of our own',
    severity: 'major',
    situations: [...SITUATIONS],
  };
  const row = ownRow(made);
  const at = rows.value.findLastIndex((r) => r.section === section) + 1;
  rows.value = [...rows.value.slice(0, at), row, ...rows.value.slice(at)];
  open.value = row.id;
  void nextTick(() => {
    const field = document.querySelector<HTMLInputElement>(`[data-check="${row.id}"] .own input`);
    field?.scrollIntoView({ block: 'center' });
    field?.focus();
    field?.select();
  });
}
const switchSection = (section: Section, on: boolean): void => {
  rows.value = rows.value.map((r) => (r.section === section && matches.value(r) ? { ...r, on } : r));
};
/** The checklist once it is without faults; undefined and the faults shown otherwise. */
async function checked(): Promise<Checklist | undefined> {
  const list = composed();
  const { faults } = await readChecklist(list);
  const { byRow, sentence } = sortFaults(faults, list);
  rowFaults.value = byRow;
  wrong.value = sentence;
  const first = Object.keys(byRow)[0];
  if (first) {
    open.value = first;
    only.value = 'all';
    words.value = '';
    await nextTick();
    document.querySelector(`[data-check="${first}"]`)?.scrollIntoView({ block: 'center' });
  }
  return faults.length ? undefined : list;
}
async function save(): Promise<void> {
  const list = await checked();
  if (!list) return;
  const saved = await saveList(list);
  if (!saved) return;
  again.value = (detail.value?.sites.count ?? 0) > 0;
  notes.say(`Saved as version ${saved.version}.`);
}
const { run: reevaluate } = useAction(async () => {
  await api('/api/checklists/reevaluate', { method: 'POST', body: { ofChecklist: id } });
  again.value = false;
  notes.say('Their stored evidence is being re-evaluated; how far it is stands at the top.');
});
async function copy(): Promise<void> {
  try {
    const { id: made } = await api('/api/checklists', {
      method: 'POST',
      body: {
        ...composed(),
        name: unusedName(
          `${about.name} copy`,
          (await api('/api/checklists')).map((c) => c.name),
        ),
      },
    });
    forget();
    await navigateTo(`/checklists/${made}`);
  } catch (error) {
    wrong.value = (error as Error).message;
  }
}
async function remove(): Promise<void> {
  if (!(await question.remove(about.name, 'Its versions go with it.'))) return;
  try {
    await api('/api/checklists/:id', { params: { id }, method: 'DELETE' });
    forget();
    await navigateTo('/checklists');
  } catch (error) {
    wrong.value = (error as Error).message;
  }
}
const { run: bringBack } = useAction(async (version: number) => {
  const old = await api('/api/checklists/:id/versions/:version', { params: { id, version } });
  fill({ ...(old as Checklist), name: about.name });
  panel.value = '';
  notes.say(`Version ${version} fills the composer. Save makes it the newest.`);
});
function exportMarkdown(): void {
  saveText(fileName(about.name, 'md'), checklistMarkdown(composed()), 'text/markdown');
}
</script>

<template>
  <div class="page">
    <div class="page-head stick">
      <h1 class="cut">{{ detail?.name ?? 'Checklist' }}</h1>
      <span class="faint num">{{ detail ? `version ${detail.checklist.version}, ${tally}` : '' }}</span><span
        class="spring"
      />
      <template v-if="detail"
        ><v-btn :aria-expanded="panel === 'assign'" @click="panel = panel === 'assign' ? '' : 'assign'"
          >What it is for</v-btn
        ><v-btn :aria-expanded="panel === 'ahead'" @click="panel = panel === 'ahead' ? '' : 'ahead'"
          >What would change</v-btn
        >
        <v-menu location="bottom end"
          ><template #activator="{ props: p }"><v-btn v-bind="p">More ▾</v-btn></template
          ><MenuList label="More"
            ><MenuItem
              title="Save as JSON"
              @click="saveJson(fileName(about.name, 'json'), composed())" /><MenuItem
              title="Save as a list to print (Markdown)"
              @click="exportMarkdown" /><MenuItem title="Copy" @click="copy" /><MenuItem
              v-if="!fixed"
              title="Versions"
              @click="panel = 'versions'" /><MenuItem
              v-if="!fixed"
              title="Delete"
              @click="remove" /></MenuList
        ></v-menu>
        <v-btn v-if="fixed" color="primary" variant="flat" @click="copy">Copy to change it</v-btn
        ><template v-else
          ><v-btn v-if="changed" variant="text" @click="undo()">Undo changes</v-btn
          ><v-btn color="primary" variant="flat" :disabled="!changed" :loading="busy" @click="save"
            >Save</v-btn
          ></template
        ></template
      >
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <template v-if="detail">
      <p v-if="isOvertaken" role="status">
        Version {{ detail.version }} was saved while you were at it. Saving joins both.
      </p>
      <p v-if="fixed" class="faint">
        This one comes with Armband and follows its catalogue. Copy it to change it.
      </p>
      <ReevaluateOffer
        v-if="again && detail.sites.count"
        :count="detail.sites.count"
        @judge="reevaluate()"
        @later="again = false"
      />
      <PreviewChanges
        v-if="panel === 'ahead'"
        :id="id"
        :checklist="checked"
        :sites="detail.sites"
        class="gap"
        @close="panel = ''"
      />
      <AssignmentForm
        v-if="panel === 'assign'"
        :id="id"
        :assignments="detail.assignments"
        class="gap"
        @saved="
          panel = '';
          again = true;
        "
      />
      <ChecklistVersions
        v-if="panel === 'versions'"
        :id="id"
        :present="detail.version"
        class="gap"
        @close="panel = ''"
        @back="bringBack"
      />
      <div class="sheet pad gap grid">
        <v-text-field v-model="about.name" label="Name" :disabled="fixed" /><v-text-field
          v-model="about.description"
          label="What it is for, in a sentence"
          :disabled="fixed"
        />
      </div>
      <div class="page-head">
        <FilterButtons v-model="only" :options="SHOWS" label="Which checks" />
        <v-text-field
          v-model="words"
          class="filter"
          placeholder="Filter by words"
          aria-label="Filter checks by words"
          :prepend-inner-icon="mdiMagnify"
          clearable
        />
      </div>
      <div class="sheet">
        <section v-for="s in sections" :key="s.key" :aria-label="SECTION_TITLES[s.key]">
          <div class="group">
            <h2>{{ SECTION_TITLES[s.key] }}</h2>
            <span class="faint num">{{ s.on }} of {{ s.all }}, weight {{ s.weight }}</span
            ><span class="spring" /><template v-if="!fixed"
              ><button type="button" class="link" @click="switchSection(s.key, true)">all on</button
              ><button type="button" class="link" @click="switchSection(s.key, false)">all off</button
              ><v-btn size="small" variant="text" :prepend-icon="mdiPlus" @click="addOwn(s.key)"
                >A check of our own</v-btn
              ></template
            >
          </div>
          <SortableRows :disabled="fixed" @moved="(from: number, to: number) => dragged(s.list, from, to)">
            <ChecklistRow
              v-for="r in s.list"
              :key="r.id"
              :model-value="r"
              :open="open === r.id"
              :faults="rowFaults[r.id] ?? []"
              :disabled="fixed"
              @update:model-value="put"
              @toggle="open = open === r.id ? '' : r.id"
              @move="move(r, $event)"
              @remove="rows = rows.filter((x) => x.id !== r.id)"
            />
          </SortableRows>
        </section>
      </div>
    </template>
    <v-progress-linear v-else-if="!fault" indeterminate color="primary" aria-label="Loading" />
  </div>
</template>

<style scoped>
.stick {
  position: sticky;
  top: 44px;
  z-index: 6;
  background: rgb(var(--v-theme-background));
  padding: 8px 0;
  margin: 0 0 10px;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
.gap {
  margin-bottom: 12px;
}
.pad {
  padding: 12px 16px;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 2fr;
  gap: 12px;
}
.group {
  display: flex;
  align-items: baseline;
  gap: 12px;
  padding: 12px 12px 4px;
  border-top: 1px solid rgb(var(--v-theme-rule));
}
section:first-child > .group {
  border-top: 0;
}
.link {
  text-decoration: underline;
  color: rgb(var(--v-theme-primary));
  font-size: 13px;
}
.filter {
  max-width: 240px;
}
@media (max-width: 700px) {
  .grid {
    grid-template-columns: 1fr;
  }
  .stick {
    position: static;
  }
}
</style>
