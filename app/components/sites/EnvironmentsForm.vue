<script setup lang="ts">
import type { Environment } from '~/types';
import { withScheme } from '#core/extract/address';
import type { AccessKind } from '#core/facts/evidence';
import { mdiDeleteOutline, mdiPlus } from '@mdi/js';

/** Where the site can be seen, and how the audit gets in. */
const props = defineProps<{ siteId: number; environments: Environment[] }>();
const notes = useNotes();

interface Draft {
  id: number | null;
  live: boolean;
  name: string;
  url: string;
  kind: AccessKind;
  secretName: string;
  secret: string;
  kept: boolean;
  setUpOn: string;
  changedOn: string;
  endsOn: string;
}
const draftOf = (p: Environment): Draft => ({
  id: p.id,
  live: p.kind === 'live',
  name: p.name,
  url: p.url,
  kind: p.access ?? 'open',
  secretName: p.accessName ?? '',
  secret: '',
  kept: p.accessName != null,
  setUpOn: p.setUpOn ?? '',
  changedOn: p.changedOn ?? '',
  endsOn: p.endsOn ?? '',
});
const drafts = ref<Draft[]>([]);
/** Which one is being saved, or was saved last. */
const at = ref(-1);
const saved = ref('');
const own = (list: readonly Draft[], id: number | null): Draft | undefined =>
  list.find((d) => d.id !== null && d.id === id);
/** Whoever else changes environments is followed, but for those that are being changed here. */
function follow(): void {
  const before = saved.value ? (JSON.parse(saved.value) as Draft[]) : [];
  const fresh = props.environments.map(draftOf);
  const kept = fresh.map((f) => {
    const mine = own(drafts.value, f.id);
    const isTouched = mine && JSON.stringify(mine) !== JSON.stringify(own(before, f.id));
    const isSaved = mine && at.value >= 0 && drafts.value[at.value]?.id === f.id;
    if (!mine || (isTouched && !isSaved)) return mine ?? f;
    // the same object: a field that is open writes into it
    return Object.assign(mine, f);
  });
  const begun = drafts.value.filter((d) => d.id === null && !(at.value >= 0 && d === drafts.value[at.value]));
  drafts.value = [...begun, ...kept];
  saved.value = JSON.stringify(fresh);
  at.value = -1;
}
watch(() => props.environments, follow, { immediate: true });

const WAYS: { value: AccessKind; title: string }[] = [
  { value: 'open', title: 'open to everybody' },
  { value: 'credentials', title: 'user name and password' },
  { value: 'parameter', title: 'query parameter' },
  { value: 'cookie', title: 'cookie' },
  { value: 'addresses', title: 'certain addresses only' },
];
const words: Partial<Record<AccessKind, [string, string]>> = {
  credentials: ['User name', 'Password'],
  parameter: ['Name of the parameter', 'Value'],
  cookie: ['Name of the cookie', 'Value'],
};
const changed = (d: Draft): boolean => {
  const old = (JSON.parse(saved.value) as Draft[]).find((o) => o.id !== null && o.id === d.id);
  return JSON.stringify(old) !== JSON.stringify(d);
};
const {
  run: keep,
  busy,
  fault,
} = useAction(
  async (d: Draft, i: number) => {
    at.value = i;
    const body = {
      ...(d.live && d.id === null ? { kind: 'live' } : {}),
      ...(d.live ? {} : { setUpOn: d.setUpOn, changedOn: d.changedOn, endsOn: d.endsOn }),
      name: d.name.trim() || 'Staging',
      url: withScheme(d.url),
      access: {
        kind: d.kind,
        ...(words[d.kind] ? { name: d.secretName.trim(), ...(d.secret ? { value: d.secret } : {}) } : {}),
      },
    };
    if (d.id === null)
      await api('/api/sites/:id/environments', { params: { id: props.siteId }, method: 'POST', body });
    else await api('/api/environments/:id', { params: { id: d.id }, method: 'PUT', body });
    notes.say(`${body.name} is saved. The next audit uses it.`);
  },
  { inPlace: true },
);
const question = useQuestion();
const { run: remove } = useAction(async (d: Draft) => {
  if (d.id === null) {
    drafts.value = drafts.value.filter((x) => x !== d);
    return;
  }
  if (!(await question.remove(d.name, 'Its audits, fixes and attestations go with it.'))) return;
  await api('/api/environments/:id', { params: { id: d.id }, method: 'DELETE' });
  notes.say(`${d.name} is deleted.`);
});
const hasLive = computed(() => drafts.value.some((d) => d.live));
function add(live: boolean): void {
  const before = drafts.value.findIndex((d) => d.live);
  drafts.value.splice(before < 0 ? drafts.value.length : before, 0, {
    id: null,
    live,
    name: live ? 'Live' : 'Staging',
    url: '',
    kind: 'open',
    secretName: '',
    secret: '',
    kept: false,
    setUpOn: '',
    changedOn: '',
    endsOn: '',
  });
}
</script>

<template>
  <div class="spots">
    <p class="faint">
      What is entered to get in goes to that environment’s own host only. It is kept sealed, and never stands
      in evidence, logs or exports.
    </p>
    <form
      v-for="(d, i) in drafts"
      :key="d.id ?? `n${i}`"
      class="sheet environment"
      :aria-label="d.name"
      @submit.prevent="keep(d, i)"
    >
      <v-text-field v-model="d.name" label="Name" /><v-text-field
        v-model="d.url"
        label="Address"
        class="wide"
      />
      <v-select v-model="d.kind" label="Access" :items="WAYS" />
      <template v-if="words[d.kind]"
        ><v-text-field v-model="d.secretName" :label="words[d.kind]![0]" autocomplete="off" /><v-text-field
          v-model="d.secret"
          :label="words[d.kind]![1]"
          :type="d.kind === 'credentials' ? 'password' : 'text'"
          autocomplete="new-password"
          :placeholder="d.kept ? 'kept; enter to change' : ''"
          persistent-placeholder
      /></template>
      <div v-if="!d.live" class="dates row">
        <span class="faint">Where the host lets environments lapse:</span
        ><DayInput v-model="d.setUpOn" label="Set up on" /><DayInput
          v-model="d.changedOn"
          label="Last changed on"
        /><DayInput v-model="d.endsOn" label="Ends on, says the host" />
      </div>
      <div class="buttons">
        <v-btn
          v-if="d.id === null || changed(d)"
          type="submit"
          color="primary"
          variant="flat"
          size="small"
          :loading="busy && at === i"
          >Save</v-btn
        ><v-btn
          v-if="!d.live || d.id === null"
          :icon="mdiDeleteOutline"
          variant="text"
          size="small"
          :aria-label="`Delete ${d.name}`"
          @click="remove(d)"
        />
      </div>
      <p v-if="fault && at === i" class="fray row" role="alert">{{ fault }}</p>
    </form>
    <div>
      <v-btn size="small" variant="text" color="primary" :prepend-icon="mdiPlus" @click="add(false)"
        >Another environment</v-btn
      ><v-btn
        v-if="!hasLive"
        size="small"
        variant="text"
        color="primary"
        :prepend-icon="mdiPlus"
        @click="add(true)"
        >The live address</v-btn
      >
    </div>
  </div>
</template>

<style scoped>
.spots {
  display: grid;
  gap: 12px;
}
.spots > p {
  margin: 0;
}
.environment {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  padding: 12px;
}
.environment > :deep(.v-input) {
  flex: 0 1 180px;
}
.environment > .wide {
  flex: 1 1 320px;
}
.dates > span {
  flex: none;
}
.dates {
  display: flex;
  gap: 10px;
  align-items: center;
  order: 1;
}
.dates > :deep(.v-input) {
  max-width: 230px;
}
.row {
  flex: 1 1 100%;
  margin: 0;
}
.buttons {
  display: flex;
  gap: 6px;
  margin-left: auto;
}
@media (max-width: 700px) {
  .environment > :deep(.v-input),
  .dates {
    flex: 1 1 100%;
  }
  .dates {
    flex-wrap: wrap;
  }
}
</style>
