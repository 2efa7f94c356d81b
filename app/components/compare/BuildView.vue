<script setup lang="ts">
import type { BuildState } from '#core/compare/build';
import { bytesInWords } from '#core/text/bytes';
import { quantity } from '#core/text/quantity';
import type { PathedFile } from '~/composables/build-files';

/** Is what I uploaded what they see? A build, file by file, against what the live site serves. */
const props = defineProps<{ siteId: number }>();
const notes = useNotes();
const {
  data: found,
  fault,
  reload,
} = useApiQuery('/api/sites/:id/build', {
  key: () => ['site', props.siteId, 'build'],
  params: () => ({ id: props.siteId }),
});
const WORDS: Record<BuildState, string> = {
  differs: 'other bytes',
  missing: 'missing',
  injected: 'same text, something put in',
  unknown: 'not known',
  unread: 'not read yet',
  same: 'the same',
  'not served': 'server configuration',
};
const STATES = Object.keys(WORDS) as BuildState[];
/** What nobody has to look at. */
const QUIET: ReadonlySet<BuildState> = new Set(['same', 'not served']);
const shown = ref<BuildState | 'open'>('open');
const kinds = computed(() => {
  const c = found.value?.compared;
  if (!c) return [];
  const open = STATES.reduce((n, s) => n + (QUIET.has(s) ? 0 : c.counts[s]), 0);
  return [
    { key: 'open', label: 'To look at', n: open },
    ...STATES.filter((s) => c.counts[s]).map((s) => ({ key: s, label: WORDS[s], n: c.counts[s] })),
  ];
});
const MOST = 200;
const files = computed(() =>
  (found.value?.compared?.files ?? [])
    .filter((f) => (shown.value === 'open' ? !QUIET.has(f.state) : f.state === shown.value))
    .sort((a, b) => STATES.indexOf(a.state) - STATES.indexOf(b.state)),
);
const verdict = computed(() => {
  const c = found.value?.compared;
  if (!c) return '';
  const bad = c.counts.differs + c.counts.missing;
  if (bad)
    return `No: ${quantity(bad, 'file')} of ${c.files.length} ${bad === 1 ? 'is' : 'are'} not what was uploaded.`;
  const open = c.counts.unknown + c.counts.unread;
  return open
    ? `As far as it was seen: ${quantity(open, 'file')} of ${c.files.length} could not be compared.`
    : 'Yes: every file that is served is the one that was uploaded.';
});
const audits = useAudits();
/** What an audit that knows the build would see: it asks for each of its files. */
const isAuditWanted = computed(() => {
  const { build, compared, live } = found.value ?? {};
  if (!build || !live) return false;
  if (!compared) return true;
  const { missing, unknown, unread } = compared.counts;
  return missing + unknown + unread > 0 || build.at > compared.at;
});
const { run: audit, busy: starting } = useAction(async () => {
  await audits.start([found.value!.live!.id]);
  await reload();
});
const auditHint = computed(() => {
  if (found.value?.live?.isAuditing) return 'An audit is running.';
  return found.value?.compared
    ? 'It asks for every file of the build by its name.'
    : 'The live site was not audited yet.';
});
const over = ref(false);
const folder = ref<HTMLInputElement>();
const archive = ref<HTMLInputElement>();
const { run: take, busy } = useAction(async (given: Promise<PathedFile[]> | PathedFile[]) => {
  const { name, bytes } = await asZip(await given);
  const line = await api('/api/sites/:id/build', {
    params: { id: props.siteId },
    method: 'POST',
    file: new File([bytes as BlobPart], name),
  });
  notes.say(`${line.name}: ${quantity(line.files, 'file')} taken, and the live site judged by them.`);
  await reload();
});
function pick(input: HTMLInputElement | undefined): void {
  if (!input?.files?.length) return;
  void take(chosenFiles(input.files));
  input.value = '';
}
function drop(event: DragEvent): void {
  over.value = false;
  if (event.dataTransfer) void take(droppedFiles(event.dataTransfer.items));
}
const { run: forget } = useAction(async () => {
  await api('/api/sites/:id/build', { params: { id: props.siteId }, method: 'DELETE', body: {} });
  notes.say('The build is forgotten.');
  await reload();
});
</script>

<template>
  <div>
    <div
      class="sheet drop"
      :class="{ over }"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="drop"
    >
      <p v-if="found?.build">
        <b>{{ found.build.name }}</b>, {{ quantity(found.build.files, 'file') }},
        {{ bytesInWords(found.build.bytes) }}, uploaded by {{ found.build.by }}
        <TimeAt :iso="found.build.at" />
      </p>
      <p v-else>
        Drop the folder or the ZIP that was uploaded to the host: each file is held against what the live site
        serves.
      </p>
      <span class="spring" />
      <input
        ref="folder"
        type="file"
        webkitdirectory
        hidden
        aria-label="Build folder"
        @change="pick(folder)"
      />
      <input ref="archive" type="file" accept=".zip" hidden aria-label="Build ZIP" @change="pick(archive)" />
      <v-btn size="small" :loading="busy" @click="folder?.click()">Folder …</v-btn>
      <v-btn size="small" :loading="busy" @click="archive?.click()">ZIP …</v-btn>
      <v-btn v-if="found?.build" size="small" variant="text" @click="forget()">Forget it</v-btn>
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <p v-if="isAuditWanted" class="line">
      <v-btn
        size="small"
        color="primary"
        variant="flat"
        :loading="starting"
        :disabled="found?.live?.isAuditing"
        @click="audit()"
        >Audit now with this build</v-btn
      ><span class="faint">{{ auditHint }}</span>
    </p>
    <template v-if="found?.compared">
      <p class="verdict">
        <b>{{ verdict }}</b>
        <span class="faint">
          Against {{ found.compared.url }} as audited <TimeAt :iso="found.compared.at" />.</span
        >
      </p>
      <FilterButtons v-model="shown" :options="kinds" label="Which files" class="kinds" />
      <v-table v-if="files.length" density="compact" class="sheet">
        <thead>
          <tr>
            <th>File</th>
            <th>What they see</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="f in files.slice(0, MOST)" :key="f.path">
            <td class="mono">{{ f.path }}</td>
            <td :class="{ fray: f.state === 'differs' || f.state === 'missing' }">
              {{ WORDS[f.state] }}<template v-if="f.why">: {{ f.why }}</template>
              <dl v-if="f.differences" class="differences">
                <template v-for="d in f.differences" :key="d.what">
                  <dt>{{ d.what }}</dt>
                  <dd>
                    <p v-for="(line, i) in d.gone" :key="`g${i}`">
                      <b aria-label="in the build">−</b> {{ line }}
                    </p>
                    <p v-for="(line, i) in d.added" :key="`a${i}`">
                      <b aria-label="as served">+</b> {{ line }}
                    </p>
                  </dd>
                </template>
              </dl>
            </td>
          </tr>
        </tbody>
      </v-table>
      <p v-else class="faint">No file of this kind.</p>
      <p v-if="files.length > MOST" class="faint">{{ files.length - MOST }} more are not shown.</p>
      <p v-if="found.compared.extra.length" class="faint">
        Served, and not in the build:
        <span class="mono">{{ found.compared.extra.slice(0, 20).join(', ') }}</span><template
          v-if="found.compared.extra.length > 20"
        >
          and {{ found.compared.extra.length - 20 }} more</template
        >
      </p>
    </template>
  </div>
</template>

<style scoped>
.drop {
  display: flex;
  align-items: center;
  gap: 8px;
  flex-wrap: wrap;
  padding: 12px 14px;
}
.drop.over {
  border-style: dashed;
  border-color: rgb(var(--v-theme-primary));
}
.line {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
.verdict {
  font-size: 16px;
  margin: 14px 0 8px;
}
.differences {
  color: rgb(var(--v-theme-on-surface));
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: 2px 10px;
  margin: 4px 0;
  font-size: 13px;
  overflow-wrap: anywhere;
}
.differences p,
.differences dd {
  margin: 0;
}
.differences dt {
  color: rgb(var(--v-theme-faint));
}
.kinds {
  margin-bottom: 8px;
  max-width: 100%;
  overflow-x: auto;
}
</style>
