<script setup lang="ts">
import { mdiDeleteOutline, mdiPlus } from '@mdi/js';
import { BriefDto } from '#core/entry/brief';
import { BRIEF_GROUPS } from '#core/entry/brief-fields';
import { draftFrom, writeFieldText } from '#core/entry/field-text';
import { withScheme } from '#core/extract/address';
import type { Proposal } from '#core/proposals/propose-brief';
import type { ApiError } from '~/composables/api';

useHead({ title: 'Add a site – Armband' });
const notes = useNotes();
const site = ref(emptySite());
const liveUrl = ref('');
interface NewEnvironment {
  name: string;
  url: string;
  /** Asked for once the address turned out to want them. */
  access: { name: string; value: string } | null;
}
const environments = ref<NewEnvironment[]>([{ name: 'Staging', url: '', access: null }]);
const draft = ref(draftFrom(BRIEF_GROUPS, {}));
const reasons = ref<Record<string, string>>({});
const {
  faults: fieldFaults,
  others,
  all,
  whole,
  showFirst,
} = useDraftCheck(BRIEF_GROUPS, BriefDto, draft, () =>
  Object.keys(reasons.value).length ? { notWanted: reasons.value } : {},
);
const faults = ref<string[]>([]);
const reading = ref('');
const proposals = ref<Proposal[] | null>(null);
const readFrom = ref('');
/** Whether a person chose the stage; what was read proposes it only until then. */
const stageChosen = ref(false);
const stageFrom = ref('');
// vue-tsc takes two slashes in a template's attribute for a comment
const EXAMPLES = { live: 'https://kites.example/', before: 'https://draft.host.example/kites/' };
const addEnvironment = (): void => {
  environments.value.push({
    name: environments.value.length ? `Test ${environments.value.length}` : 'Staging',
    url: '',
    access: null,
  });
};
const isReading = (url: string): boolean => reading.value !== '' && reading.value === withScheme(url);
/** How to get into an address before the live one, where that was asked for. */
const accessOf = (p: NewEnvironment | undefined): object =>
  p?.access?.value ? { access: { kind: 'credentials', ...p.access } } : {};

/** @param environment the address before the live one that it is, if it is none of the live site */
async function read(url: string, environment?: NewEnvironment): Promise<void> {
  const address = withScheme(url);
  if (!address) {
    faults.value = ['Give an address to read from.'];
    return;
  }
  faults.value = [];
  reading.value = address;
  proposals.value = null;
  try {
    const answer = await api('/api/read-site', {
      method: 'POST',
      body: { url: address, kind: environment ? 'before' : 'live', ...accessOf(environment) },
    });
    if (answer.stage && !stageChosen.value) {
      site.value.stage = answer.stage.value;
      stageFrom.value = answer.stage.from;
    }
    proposals.value = answer.proposals;
    readFrom.value = answer.url;
    if (!answer.proposals.length) notes.say('The page says nothing of itself that a brief could use.');
  } catch (error) {
    faults.value = [(error as Error).message];
    const { needs } = ((error as ApiError).data ?? {}) as { needs?: string };
    if (environment && needs === 'credentials') environment.access ??= { name: '', value: '' };
  } finally {
    reading.value = '';
  }
}
function adopt(p: Proposal): void {
  const spec = BRIEF_GROUPS.flatMap((g) => g.fields).find((f) => f.field === p.field);
  if (spec) draft.value = { ...draft.value, [p.field]: writeFieldText(spec.kind, p.value) };
  if (p.field === 'name' && !site.value.name) site.value.name = p.shown;
}
const urls = computed(() =>
  [liveUrl.value, ...environments.value.map((p) => p.url)].map(withScheme).filter(Boolean),
);
/** What a site cannot be without; told at the fields once saving was tried. */
const missing = computed(() => (all.value ? missingOf(site.value) : { name: '', client: '' }));
const addressMissing = computed(() =>
  all.value && !urls.value.length
    ? 'Give the live address, or one before it where there is no live one yet.'
    : '',
);
async function save(): Promise<void> {
  const { got, fault } = await whole();
  faults.value = fault ? [fault] : [];
  if (Object.values(missing.value).some(Boolean) || addressMissing.value) {
    await showFirst();
    return;
  }
  if (fault) return;
  await keep({ ...got.data });
  if (unsaved.value) faults.value = [unsaved.value];
}
const {
  run: keep,
  busy,
  fault: unsaved,
} = useAction(
  async (brief: object) => {
    const { name, client, stage, replaces, launchDate, hostProfile, ownerId, pageLimit } = site.value;
    const { id } = await api('/api/sites', {
      method: 'POST',
      body: {
        name: name.trim(),
        client: client.trim(),
        stage,
        replaces,
        environments: environments.value
          .filter((p) => p.url.trim())
          .map((p) => ({ name: p.name.trim() || 'Staging', url: withScheme(p.url), ...accessOf(p) })),
        ...(liveUrl.value.trim() ? { liveUrl: withScheme(liveUrl.value) } : {}),
        ...(launchDate ? { launchDate } : {}),
        ...(hostProfile ? { hostProfile } : {}),
        ...(ownerId ? { ownerId } : {}),
        ...(pageLimit ? { pageLimit } : {}),
        brief: { ...(name ? { name: name.trim() } : {}), ...brief },
      },
    });
    notes.say(`${name.trim()} is added. Audit it now.`);
    await navigateTo(`/sites/${id}`);
  },
  { inPlace: true },
);
</script>

<template>
  <form class="page narrow" @submit.prevent="save">
    <div class="page-head">
      <h1>Add a site</h1>
      <NuxtLink to="/sites/import">Many at once, from a CSV file</NuxtLink><span class="spring" /><v-btn
        to="/"
        variant="text"
        >Cancel</v-btn
      ><v-btn type="submit" color="primary" variant="flat" :loading="busy">Add the site</v-btn>
    </div>
    <p v-for="f in faults" :key="f" class="fray" role="alert">{{ f }}</p>
    <section class="sheet">
      <h2>The site</h2>
      <SiteFields
        v-model="site"
        :missing="missing"
        :urls="urls"
        :stage-from="stageFrom"
        @stage="
          stageChosen = true;
          stageFrom = '';
        "
      />
    </section>
    <section class="sheet">
      <h2>Where it can be seen</h2>
      <div class="environment">
        <span class="faint fixed">Live</span
        ><v-text-field
          v-model="liveUrl"
          label="Live address (blank while there is none yet)"
          :placeholder="EXAMPLES.live"
          :error-messages="addressMissing"
        /><v-btn :disabled="reading !== ''" :loading="isReading(liveUrl)" @click="read(liveUrl)"
          >Read from the site</v-btn
        >
      </div>
      <div v-for="(p, i) in environments" :key="i" class="environment">
        <v-text-field v-model="p.name" label="Name" class="short" /><v-text-field
          v-model="p.url"
          label="Address before the live one (it may have a path)"
          :placeholder="EXAMPLES.before"
        /><v-btn :disabled="reading !== ''" :loading="isReading(p.url)" @click="read(p.url, p)"
          >Read from the site</v-btn
        ><v-btn
          :icon="mdiDeleteOutline"
          variant="text"
          size="small"
          aria-label="Leave this environment out"
          @click="environments.splice(i, 1)"
        />
        <div v-if="p.access" class="access">
          <span class="faint">It asks for a user name and a password.</span
          ><v-text-field v-model="p.access.name" label="User name" autocomplete="off" /><v-text-field
            v-model="p.access.value"
            label="Password"
            type="password"
            autocomplete="off"
          />
        </div>
      </div>
      <div>
        <v-btn size="small" variant="text" color="primary" :prepend-icon="mdiPlus" @click="addEnvironment"
          >Another environment</v-btn
        >
      </div>
    </section>
    <ProposalList
      v-if="proposals?.length"
      :proposals="proposals"
      :from="readFrom"
      class="sheet"
      @adopt="adopt"
      @close="proposals = null"
    />
    <section class="sheet">
      <h2>First brief</h2>
      <p class="faint">
        What is officially so; nothing here is final. A field left blank makes its checks untested.
      </p>
      <p v-for="f in all ? others : []" :key="f" class="fray">{{ f }}</p>
      <FieldGroups
        v-model="draft"
        v-model:reasons="reasons"
        :groups="BRIEF_GROUPS"
        :faults="fieldFaults"
        :all="all"
      />
    </section>
    <div class="page-head">
      <span class="spring" /><v-btn type="submit" color="primary" variant="flat" :loading="busy"
        >Add the site</v-btn
      >
    </div>
  </form>
</template>

<style scoped>
.narrow {
  max-width: 940px;
  display: grid;
  gap: 14px;
}
.page-head {
  margin: 0;
}
section {
  padding: 16px;
  display: grid;
  gap: 12px;
}
.environment {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: start;
}
.environment > .v-btn {
  margin-top: 6px;
}
.access {
  flex: 1 1 100%;
  display: flex;
  gap: 10px;
  align-items: center;
}
.short {
  max-width: 140px;
}
.fixed {
  width: 140px;
  line-height: 40px;
}
@media (max-width: 700px) {
  .environment {
    flex-wrap: wrap;
  }
  .environment > .v-input {
    flex: 1 1 100%;
    max-width: none;
  }
  .fixed {
    width: auto;
  }
}
</style>
