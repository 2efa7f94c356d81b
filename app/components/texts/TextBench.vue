<script setup lang="ts">
import { mdiDownload, mdiFormatListText, mdiUndo } from '@mdi/js';
import { noteHtml, noteMarkdown } from '#core/intended/client-note';
import { writeTextsCsv } from '#core/intended/texts-csv';
import { intendedState } from '#core/facts/intended-text';
import { foldSpace } from '#core/text/fold';
import { matching } from '#core/text/matching';
import { quantity } from '#core/text/quantity';
import type { TextField } from '#core/checks/kit/default-texts';
import type { BenchPage, TextChange } from '~/composables/bench';
import type { Environment, SiteDetail } from '~/types';

/** Writing titles and descriptions, page by page, beside what is live. */
const props = defineProps<{ site: SiteDetail; environment: Environment; auditId: number }>();
const session = useSession();
const notes = useNotes();
const { data: read, fault } = useApiQuery('/api/audits/:id/pages', {
  key: () => ['site', props.site.id, 'pages', props.auditId],
  params: () => ({ id: props.auditId }),
});
const { data: kept } = useApiQuery('/api/sites/:id/texts', {
  key: () => ['site', props.site.id, 'texts'],
  params: () => ({ id: props.site.id }),
  query: () => ({ environment: props.environment.id }),
});
const { data: profiles } = useApiQuery('/api/host-profiles', { key: ['host-profiles'] });
const profileId = computed(() => profiles.value?.find((p) => p.name === props.site.hostProfile)?.id ?? 0);
const { data: profile } = useApiQuery('/api/host-profiles/:id', {
  key: () => ['host-profiles', profileId.value],
  params: () => ({ id: profileId.value }),
  when: () => profileId.value > 0,
});
const wanted = computed(() => ({
  brief: props.site.brief?.data ?? {},
  ...(profile.value ? { profile: profile.value.profile } : {}),
}));

const pages = computed(() => benchPages(read.value?.pages ?? [], kept.value ?? [], props.environment.url));
const rooms = computed(() => read.value?.rooms);
const taken = computed(() => ({
  title: takenTexts(pages.value, 'title'),
  description: takenTexts(pages.value, 'description'),
}));
const which = ref<'needs' | 'all'>('needs');
const typed = ref('');
const words = computed(() => (typed.value ?? '').trim());
const needing = computed(() => pages.value.filter((p) => needsWork(p, rooms.value!)));
const shows = computed(() => [
  { key: 'needs' as const, label: 'need work', n: needing.value.length },
  { key: 'all' as const, label: 'all', n: pages.value.length },
]);
const at = ref('');
const shown = computed(() => {
  const has = matching(words.value);
  const list = which.value === 'needs' ? needing.value : pages.value;
  // the one that is open stays while it is written right
  const rest = list.filter((p) => has(`${p.path} ${p.line.title.text}`));
  const open = pages.value.find((p) => p.path === at.value);
  return open && !rest.includes(open) ? [open, ...rest] : rest;
});
const current = computed(() => pages.value.find((p) => p.path === at.value));
watch(
  shown,
  (list) => {
    if (!at.value && list[0]) at.value = list[0].path;
  },
  { immediate: true },
);
const draft = reactive<Record<TextField, string>>({ title: '', description: '' });
/** What the draft was begun from: whoever else saves the page meanwhile takes nothing from it. */
const base = ref<{ path: string; version: number; texts: Record<TextField, string> }>();
function fill(page: BenchPage | undefined): void {
  base.value = page && {
    path: page.path,
    version: page.kept?.version ?? 0,
    texts: { title: wantedText(page, 'title'), description: wantedText(page, 'description') },
  };
  Object.assign(draft, base.value?.texts ?? { title: '', description: '' });
}
const changes = computed((): TextChange | null => {
  const from = base.value;
  const fields = TEXT_FIELDS.filter((f) => from && foldSpace(draft[f]) !== from.texts[f]);
  if (!from || !fields.length) return null;
  return {
    path: from.path,
    from: from.version,
    ...Object.fromEntries(fields.map((f) => [f, foldSpace(draft[f])])),
  };
});
watch(
  current,
  (page) => {
    const isOther = page?.path !== base.value?.path;
    const isSaved = page && TEXT_FIELDS.every((f) => foldSpace(draft[f]) === wantedText(page, f));
    if (isOther || isSaved || !changes.value) fill(page);
  },
  { immediate: true },
);
const {
  run: save,
  busy,
  fault: unsaved,
} = useAction(
  async () => {
    const change = changes.value;
    if (!change) return true;
    const changed = await saveTexts(props.site.id, [change]);
    if (base.value?.path === change.path) {
      // the server may have told of the new version before it answered
      base.value.version = Math.max(base.value.version, (change.from ?? 0) + changed);
      for (const field of TEXT_FIELDS) base.value.texts[field] = change[field] ?? base.value.texts[field];
    }
    notes.say(`The texts of ${change.path} are saved.`);
    return true;
  },
  { inPlace: true },
);
/** Saves all that is typed, also while a save is running: it belongs to the page that is shown. */
async function saveAll(): Promise<boolean> {
  do if (!(await save())) return false;
  while (changes.value);
  return true;
}
/** Goes to another page once what is typed is kept; where it cannot be, it stays here. */
async function open(path: string): Promise<void> {
  if (path !== at.value && (await saveAll())) at.value = path;
}
async function step(by: 1 | -1): Promise<void> {
  const list = shown.value;
  const i = list.findIndex((p) => p.path === at.value);
  const next = list[Math.min(list.length - 1, Math.max(0, i + by))];
  if (next === undefined || next.path === at.value) await saveAll();
  else await open(next.path);
}
useScreenKeys({
  'mod+enter': () => void step(1),
  'mod+arrowdown': () => void step(1),
  'mod+arrowup': () => void step(-1),
});
const STATES = {
  live: 'live',
  'not yet': 'not yet live',
  'changed since': 'changed by someone since',
} as const;
const stateOf = ({ kept: text, line }: BenchPage): string =>
  text
    ? STATES[intendedState(text, { title: line.title.text, description: line.description.text })]
    : 'not written';

const isPattern = ref(false);
const before = ref<TextChange[] | null>(null);
const { run: undo } = useAction(async () => {
  await saveTexts(props.site.id, before.value ?? []);
  before.value = null;
  notes.say('The texts are as they were.');
});
const written = computed(() => pages.value.filter((p) => p.kept));
const waiting = computed(() => written.value.filter((p) => stateOf(p) !== 'live').map((p) => p.path));
const { run: typeIn, busy: typing } = useAction(async () => {
  const paths = waiting.value;
  await api('/api/practice-texts', { method: 'POST', body: { environmentId: props.environment.id, paths } });
  notes.say(`${quantity(paths.length, 'page')} of the practice site changed. Audit now to see it.`);
});
const named = (ending: string): string => fileName(`${props.site.name} texts`, ending);
const NOTE = { html: 'text/html', md: 'text/markdown', csv: 'text/csv' } as const;
const OUT = [
  { as: 'csv' as const, title: 'CSV of all pages', of: () => writeTextsCsv(textRows(pages.value)) },
  {
    as: 'md' as const,
    title: 'Note to the client, Markdown',
    of: () => noteMarkdown(props.site.name, textRows(written.value)),
  },
  {
    as: 'html' as const,
    title: 'Note to the client, HTML',
    of: () => noteHtml(props.site.name, textRows(written.value)),
  },
];
</script>

<template>
  <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  <v-progress-linear
    v-else-if="!read || !kept || !rooms"
    indeterminate
    color="primary"
    aria-label="Loading"
  />
  <div v-else-if="!pages.length" class="sheet empty"><p>This audit read no page that has texts.</p></div>
  <template v-else>
    <div class="page-head">
      <FilterButtons v-model="which" :options="shows" label="Which pages" />
      <v-text-field
        v-model="typed"
        placeholder="Filter by words"
        aria-label="Filter pages by words"
        class="filter"
        clearable
      />
      <v-btn size="small" :prepend-icon="mdiFormatListText" @click="isPattern = true">Pattern …</v-btn>
      <TextsImport :site-id="site.id" :pages="pages" @taken="before = $event" />
      <v-menu
        ><template #activator="{ props: menu }"
          ><v-btn v-bind="menu" size="small" :prepend-icon="mdiDownload">Export</v-btn></template
        ><MenuList label="Export"
          ><MenuItem
            v-for="o in OUT"
            :key="o.as"
            :title="o.title"
            @click="saveText(named(o.as), o.of(), NOTE[o.as])" /></MenuList
      ></v-menu>
      <v-btn v-if="before" size="small" :prepend-icon="mdiUndo" @click="undo()"
        >Undo {{ quantity(before.length, 'page') }}</v-btn
      >
      <span class="spring" />
      <v-btn
        v-if="session.me?.demo && waiting.length"
        size="small"
        :loading="typing"
        title="As somebody would at the host: only in the demo"
        @click="typeIn()"
        >Type {{ quantity(waiting.length, 'page') }} into the practice site</v-btn
      >
      <span class="faint keys"
        ><kbd>Ctrl ↵</kbd> save and next, <kbd>Ctrl ↑</kbd> <kbd>Ctrl ↓</kbd> move</span
      >
    </div>
    <div class="bench">
      <v-virtual-scroll :items="shown" :item-height="52" class="sheet list" role="group" aria-label="Pages">
        <template #default="{ item: p }">
          <button
            type="button"
            class="row"
            :class="{ chosen: p.path === at }"
            :aria-pressed="p.path === at"
            @click="open(p.path)"
          >
            <span class="mono cut">{{ p.path }}</span>
            <span class="cut small" :class="stateOf(p) === 'live' ? 'faint' : ''"
              >{{ stateOf(p) }}<template v-if="needing.includes(p)"> · needs work</template></span
            >
          </button>
        </template>
      </v-virtual-scroll>
      <form v-if="current" class="sheet desk" aria-label="Texts" @submit.prevent="save()">
        <div class="top">
          <a :href="current.line.url" target="_blank" rel="noopener noreferrer" class="mono cut">{{
            current.path
          }}</a>
          <TextVersions
            v-if="current.kept"
            :site-id="site.id"
            :path="current.path"
            :version="current.kept.version"
            :by="current.kept.by"
            :at="current.kept.at"
            @use="Object.assign(draft, $event)"
          />
        </div>
        <TextRuler
          v-for="f in TEXT_FIELDS"
          :key="f"
          v-model="draft[f]"
          :field="f"
          :path="current.path"
          :live="current.line[f].text"
          :room="rooms[f]"
          :taken="taken[f]"
          :wanted="wanted"
        />
        <p v-if="unsaved" class="fray" role="alert">{{ unsaved }}</p>
        <div class="buttons">
          <v-btn type="submit" color="primary" variant="flat" :disabled="!changes" :loading="busy"
            >Save</v-btn
          >
          <v-btn v-if="changes" variant="text" @click="fill(current)">Undo changes</v-btn>
          <span class="spring" />
          <v-btn size="small" variant="text" @click="step(-1)">Previous</v-btn>
          <v-btn size="small" variant="text" @click="step(1)">Next</v-btn>
        </div>
      </form>
      <p v-else class="faint">
        {{
          which === 'needs' && !words
            ? 'No page needs work: every title and description fits. “all” shows them.'
            : 'No page matches.'
        }}
      </p>
      <TextPreview
        v-if="current"
        :site-id="site.id"
        :environment-id="environment.id"
        :picture="current.line.picture"
        :url="current.line.url"
        :title="draft.title"
        :description="draft.description"
        :rooms="rooms"
      />
    </div>
    <TextPattern
      v-if="isPattern"
      v-model="isPattern"
      :site-id="site.id"
      :pages="shown"
      :rooms="rooms"
      :brief="wanted.brief"
      @taken="before = $event"
    />
  </template>
</template>

<style scoped>
.filter {
  max-width: 220px;
  min-width: 150px;
}
.bench {
  display: grid;
  grid-template-columns: 230px minmax(0, 1fr) 380px;
  gap: 14px;
  align-items: start;
}
.list {
  height: calc(100vh - 298px);
}
.row {
  display: grid;
  width: 100%;
  height: 52px;
  align-content: center;
  padding: 0 12px;
  text-align: left;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
.row:hover {
  background: rgb(var(--v-theme-primary), 0.05);
}
.row.chosen {
  background: rgb(var(--v-theme-primary), 0.1);
}
.small {
  font-size: 12.5px;
}
.desk {
  padding: 14px 16px;
  display: grid;
  gap: 18px;
}
.top {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
.buttons {
  display: flex;
  gap: 10px;
  align-items: center;
}
@media (max-width: 1100px) {
  .bench {
    grid-template-columns: minmax(0, 1fr);
  }
  .list {
    height: 180px;
  }
  .keys {
    display: none;
  }
}
</style>
