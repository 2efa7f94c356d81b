<script setup lang="ts">
import { quantity } from '#core/text/quantity';
import { checkDraft } from '#core/entry/check-draft';
import { draftFrom, writeFieldText } from '#core/entry/field-text';
import { withScheme } from '#core/extract/address';
import { HostProfileDto } from '#core/entry/host-profile';
import { PROFILE_GROUPS } from '#core/entry/host-profile-fields';
import type { HostProfile } from '#core/facts/host-profile';
import type { Version } from '~/types';

/** One host profile: its fields, versions, and what an untouched site of it teaches. */
const route = useRoute();
const notes = useNotes();
const question = useQuestion();
const id = Number(route.params.id);
const { data: detail, fault: unread } = useApiQuery('/api/host-profiles/:id', {
  key: ['host-profiles', id],
  params: { id },
});
const name = computed(() => detail.value?.name ?? 'Host profile');
useHead({ title: computed(() => `${name.value} – Armband`) });
const draft = ref(draftFrom(PROFILE_GROUPS, {}));
const wrong = ref('');
const showVersions = ref(false);
const learnUrl = ref('');
const learning = ref(false);
const learnt = ref<{ url: string; list: { field: string; values: string[] }[] } | null>(null);
const EXAMPLE = 'https://sample.host.example/';
const { faults, others, all, check, whole } = useDraftCheck(
  PROFILE_GROUPS,
  HostProfileDto,
  draft,
  () => ({}),
);
function fill(profile: HostProfile): void {
  draft.value = draftFrom(PROFILE_GROUPS, profile);
  all.value = false;
}
const {
  changed,
  isOvertaken,
  undo,
  forget,
  run: saveProfile,
  busy,
  fault: refused,
} = useSaving({
  state: () => JSON.stringify(draft.value),
  save: (profile: HostProfile, version) =>
    api('/api/host-profiles/:id', { params: { id }, method: 'PUT', query: { from: version }, body: profile }),
  label: (path) => label(path.split('.')[0]!),
  fill,
  asForm: async (profile) =>
    (await checkDraft(PROFILE_GROUPS, HostProfileDto, draftFrom(PROFILE_GROUPS, profile)))
      .data as unknown as HostProfile,
  newest: () => detail.value && { version: detail.value.version, document: detail.value.profile },
});
const fault = computed(() => unread.value || wrong.value || refused.value);
function reset(): void {
  wrong.value = '';
  undo();
}
onBeforeRouteLeave(() => !changed.value || question.leave('the host profile'));
async function save(): Promise<void> {
  const { got, fault: found } = await whole();
  wrong.value = found;
  if (found) return;
  const saved = await saveProfile(got.data as unknown as HostProfile);
  if (!saved) return;
  notes.say(
    `Saved as version ${saved.version}.${saved.job ? ' The stored evidence of its sites is being judged by it.' : ''}`,
  );
}
function bringBack(v: Version<HostProfile>): void {
  fill(v.data);
  showVersions.value = false;
  notes.say(`What version ${v.version} said fills the form. Save makes it the newest.`);
}
async function drop(): Promise<void> {
  if (!(await question.remove(name.value, 'Its versions go with it.'))) return;
  try {
    await api('/api/host-profiles/:id', { params: { id }, method: 'DELETE' });
    forget();
    notes.say(`${name.value} is deleted.`);
    await navigateTo('/host-profiles');
  } catch (error) {
    wrong.value = (error as Error).message;
  }
}
async function learn(): Promise<void> {
  const url = withScheme(learnUrl.value);
  learning.value = true;
  wrong.value = '';
  learnt.value = null;
  try {
    const { learnt: list, url: from } = await api('/api/host-profiles/learn', {
      method: 'POST',
      body: { url, profile: (await check()).data },
    });
    learnt.value = { url: from, list };
    if (!list.length) notes.say('Nothing there that the profile does not have already.');
  } catch (error) {
    wrong.value = (error as Error).message;
  } finally {
    learning.value = false;
  }
}
function takeLearnt(l: { field: string; values: string[] }, values: string[]): void {
  const field = `defaults.${l.field}`;
  draft.value = {
    ...draft.value,
    [field]: [draft.value[field]?.trim(), writeFieldText('lines', values)].filter(Boolean).join('\n'),
  };
  const rest = learnt
    .value!.list.map((x) =>
      x.field === l.field ? { ...x, values: x.values.filter((v) => !values.includes(v)) } : x,
    )
    .filter((x) => x.values.length);
  learnt.value = rest.length ? { ...learnt.value!, list: rest } : null;
}
const label = (field: string): string =>
  PROFILE_GROUPS.flatMap((g) => g.fields).find((f) => f.field === field)?.label ??
  {
    defaults: 'What it leaves behind',
    icons: 'Icons',
    marks: 'Marks of its pages',
    stagingLifetime: 'Staging lifetime',
  }[field] ??
  field;
async function exportJson(): Promise<void> {
  saveJson(fileName(`${name.value} host profile`, 'json'), (await check()).data);
}
</script>

<template>
  <form class="page narrow" novalidate @submit.prevent="save">
    <div class="page-head stick">
      <h1>{{ name }}</h1>
      <span v-if="detail" class="faint"
        >version {{ detail.version }}, {{ quantity(detail.sites.count, 'site') }}</span
      ><span class="spring" />
      <v-btn v-if="detail" :aria-expanded="showVersions" @click="showVersions = !showVersions">Versions</v-btn
      ><v-btn @click="exportJson">Save as JSON</v-btn
      ><v-btn v-if="detail && !detail.sites.count" variant="text" color="error" @click="drop">Delete</v-btn
      ><v-btn v-if="changed && detail" variant="text" @click="reset">Undo changes</v-btn
      ><v-btn type="submit" color="primary" variant="flat" :loading="busy" :disabled="!changed || !detail"
        >Save</v-btn
      >
    </div>
    <p v-for="f in [fault, ...(all ? others : [])].filter(Boolean)" :key="f" class="fray" role="alert">
      {{ f }}
    </p>
    <template v-if="detail">
      <p v-if="isOvertaken" role="status">
        Version {{ detail.version }} was saved while you were at it. Saving joins both.
      </p>
      <p v-if="detail.sites.count" class="faint">
        Used by
        <template v-for="(s, i) in detail.sites.some.slice(0, 12)" :key="s.id"
          >{{ i ? ', ' : '' }}<NuxtLink :to="`/sites/${s.id}`">{{ s.name }}</NuxtLink></template
        ><template v-if="detail.sites.count > 12"> and {{ detail.sites.count - 12 }} more</template>. Saving
        re-evaluates their stored evidence.
      </p>
      <section v-if="showVersions" class="sheet pad" aria-label="Versions">
        <VersionList
          :of="{ route: '/api/host-profiles/:id/versions', id, key: ['host-profiles', id, 'versions'] }"
          :label="label"
          @back="bringBack($event as Version<HostProfile>)"
        />
      </section>
      <section class="sheet pad learn">
        <h2>Learn defaults</h2>
        <p class="faint">
          Give the address of an untouched site of this host. Its titles, texts, people and icons are proposed
          as what the host leaves behind.
        </p>
        <div class="buttons">
          <v-text-field
            v-model="learnUrl"
            label="Address of an untouched site"
            :placeholder="EXAMPLE"
            @keydown.enter.prevent="learn"
          /><v-btn :loading="learning" :disabled="!learnUrl.trim()" @click="learn">Look at it</v-btn>
        </div>
        <div v-for="l in learnt?.list ?? []" :key="l.field" class="learnt">
          <div class="page-head">
            <b>{{ label(`defaults.${l.field}`) }}</b><span class="spring" /><v-btn
              size="small"
              @click="takeLearnt(l, l.values)"
              >Use all {{ l.values.length }}</v-btn
            >
          </div>
          <div v-for="v in l.values" :key="v" class="value">
            <span class="cut" :title="v">{{ v }}</span><v-btn
              size="x-small"
              :aria-label="`Use ${v}`"
              @click="takeLearnt(l, [v])"
              >Use</v-btn
            >
          </div>
        </div>
      </section>
      <section class="sheet pad">
        <FieldGroups v-model="draft" :groups="PROFILE_GROUPS" :faults="faults" :all="all" />
      </section>
    </template>
    <v-progress-linear v-else-if="!fault" indeterminate color="primary" aria-label="Loading" />
  </form>
</template>

<style scoped>
.narrow {
  max-width: 1080px;
  display: grid;
  gap: 12px;
}
.narrow > * {
  min-width: 0;
}
.pad {
  padding: 14px 16px;
  display: grid;
  gap: 10px;
}
.pad > * {
  min-width: 0;
}
.stick {
  position: sticky;
  top: 44px;
  z-index: 5;
  background: rgb(var(--v-theme-background));
  padding: 8px 0;
  margin: 0;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
.buttons {
  display: flex;
  gap: 10px;
  align-items: center;
}
.learnt {
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding-top: 8px;
}
.learnt .page-head {
  margin: 0 0 4px;
}
.value {
  display: flex;
  gap: 10px;
  align-items: center;
  justify-content: space-between;
  padding: 2px 0;
}
</style>
