<script setup lang="ts">
import { ACCOUNT_KINDS, ACCOUNT_WORDS, type AccountKind, type SiteAccount } from '#core/facts/launch';

/** The accounts that a site rests on: under whose name, who can get in, who pays. Never a secret. */
const props = defineProps<{ siteId: number }>();
const { data: accounts, fault } = useApiQuery('/api/sites/:id/accounts', {
  key: () => ['site', props.siteId, 'accounts'],
  params: () => ({ id: props.siteId }),
});
const SHOWN: AccountKind[] = ACCOUNT_KINDS.filter((kind) => kind !== 'site');
const kept = (kind: AccountKind) => accounts.value?.find((a) => a.kind === kind);
const blank = (kind: AccountKind): SiteAccount => ({
  kind,
  operator: '',
  holder: '',
  access: '',
  payer: '',
  hasTransferCode: false,
  note: '',
});
const draft = ref<SiteAccount>();
function edit(kind: AccountKind): void {
  const {
    savedBy: _,
    savedAt: __,
    ...account
  } = { savedBy: '', savedAt: '', ...(kept(kind) ?? blank(kind)) };
  draft.value = account;
}
const {
  run: save,
  busy,
  fault: unsaved,
} = useAction(
  async () => {
    await api('/api/sites/:id/accounts', {
      params: { id: props.siteId },
      method: 'PUT',
      body: draft.value,
    });
    draft.value = undefined;
  },
  { inPlace: true },
);
const FIELDS = [
  ['operator', 'Operator'],
  ['holder', 'Under whose name'],
  ['access', 'Who can get in'],
  ['payer', 'Who pays'],
  ['note', 'Note'],
] as const;
</script>

<template>
  <section class="sheet accounts" aria-label="Accounts">
    <h2>Accounts</h2>
    <p class="faint">What the site rests on, and who can get in. Write no password here: only who has it.</p>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <div v-for="kind in SHOWN" :key="kind" class="account">
      <div class="line">
        <h3>{{ ACCOUNT_WORDS[kind] }}</h3>
        <template v-if="kept(kind)">
          <b>{{ kept(kind)!.operator }}</b>
          <span v-if="kept(kind)!.hasTransferCode" class="faint">transfer code at hand</span>
        </template>
        <span v-else class="faint">not written down</span>
        <span class="spring" />
        <v-btn
          v-if="draft?.kind !== kind"
          size="small"
          variant="text"
          :aria-label="`Edit ${ACCOUNT_WORDS[kind]}`"
          @click="edit(kind)"
          >{{ kept(kind) ? 'Edit' : 'Write down' }}</v-btn
        >
      </div>
      <form v-if="draft?.kind === kind" class="form" @submit.prevent="save()">
        <v-text-field
          v-for="[field, label] in FIELDS"
          :key="field"
          v-model="draft[field]"
          :label="label"
          hide-details
        />
        <v-checkbox
          v-if="kind === 'registrar'"
          v-model="draft.hasTransferCode"
          label="The transfer code is at hand"
          hide-details
        />
        <p v-if="unsaved" class="fray" role="alert">{{ unsaved }}</p>
        <div class="line">
          <v-btn type="submit" size="small" color="primary" variant="flat" :loading="busy">Save</v-btn>
          <v-btn size="small" variant="text" @click="draft = undefined">Cancel</v-btn>
        </div>
      </form>
      <p v-else-if="kept(kind)" class="faint facts">
        <span v-if="kept(kind)!.holder">held by {{ kept(kind)!.holder }}</span>
        <span v-if="kept(kind)!.access">access: {{ kept(kind)!.access }}</span>
        <span v-if="kept(kind)!.payer">paid by {{ kept(kind)!.payer }}</span>
        <span v-if="kept(kind)!.note">{{ kept(kind)!.note }}</span>
      </p>
    </div>
  </section>
</template>

<style scoped>
.accounts {
  padding: 14px 16px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  max-width: 900px;
}
p,
h3 {
  margin: 0;
}
h3 {
  font-size: 14px;
  min-width: 120px;
}
.account {
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding-top: 6px;
}
.line,
.facts {
  display: flex;
  gap: 4px 14px;
  flex-wrap: wrap;
  align-items: center;
}
.form {
  display: grid;
  gap: 8px;
  padding: 8px 0;
}
</style>
