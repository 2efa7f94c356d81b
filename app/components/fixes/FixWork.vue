<script setup lang="ts">
import { mdiEyeRefreshOutline } from '@mdi/js';
import { isRemarkCheck } from '#core/facts/fix';
import { manualStates } from '#core/fixes/life';

/** Owner, due date, state, comments and history of one fix. */
const props = defineProps<{ id: number; canAccept?: boolean; accepted?: boolean }>();
const emit = defineEmits<{ accept: [] }>();
const people = usePeople();
const comment = ref('');
const { data: fix, fault: unread } = useApiQuery('/api/fixes/:id', {
  key: () => ['fix', props.id],
  params: () => ({ id: props.id }),
});
const { run: change, fault: unchanged } = useAction(
  (body: Record<string, unknown>) =>
    api('/api/fixes/:id', { params: { id: props.id }, method: 'PATCH', body }),
  { inPlace: true },
);
const { run: withdraw, fault: unwithdrawn } = useAction(
  () => api('/api/fixes/:id/withdraw', { params: { id: props.id }, method: 'POST', body: {} }),
  { inPlace: true },
);
const audits = useAudits();
const live = useLive();
const running = computed(() => fix.value && live.running.get(fix.value.environmentId));
const isOpen = computed(() => ['open', 'in progress', 'to verify'].includes(fix.value?.state ?? ''));
const fault = computed(() => unread.value || unchanged.value || unwithdrawn.value);
async function say(): Promise<void> {
  const said = comment.value.trim();
  if (said && (await change({ comment: said }))) comment.value = '';
}
const owners = computed((): { title: string; value: string | number }[] => [
  { title: 'nobody', value: 0 },
  ...people.value.map((p) => ({ title: p.name, value: p.id })),
  ...(fix.value?.contacts ?? []).map((c) => ({ title: `${c.name} (client)`, value: `client ${c.id}` })),
]);
/** Somebody of the agency by their number, a contact by `client` and theirs. */
function setOwner(owner: string | number): void {
  const contactId = Number(/^client (\d+)$/.exec(String(owner))?.[1]);
  void change(contactId ? { contactId } : { ownerId: owner });
}
const isRemark = computed(() => isRemarkCheck(fix.value?.check ?? ''));
const STATE_BUTTONS: Record<string, string> = {
  open: 'Open again',
  'in progress': 'In progress',
  'to verify': 'To verify',
  verified: 'Verified',
};
const WORDS: Record<string, string> = {
  opened: 'opened',
  state: 'set to',
  'came back': 'came back',
  'still seen': 'still seen, so open again',
  verified: 'verified: no longer seen',
  gone: 'gone: no longer seen',
  accepted: 'accepted',
  places: 'what it touches',
  owner: 'owner',
  due: 'due',
  comment: 'says',
};
</script>

<template>
  <div v-if="fix" class="work">
    <p>
      State: <b>{{ fix.state }}</b><span v-if="fix.returns" class="fray">
        · came back {{ fix.returns === 1 ? 'once' : `${fix.returns} times` }}</span
      >
    </p>
    <div class="buttons">
      <v-btn
        v-for="s in manualStates(fix.state, fix.check)"
        :key="s"
        size="small"
        @click="change({ state: s })"
        >{{ STATE_BUTTONS[s] }}</v-btn
      >
      <v-btn v-if="canAccept" size="small" variant="text" @click="emit('accept')">Accept …</v-btn>
      <v-btn v-if="accepted" size="small" variant="text" @click="withdraw">Withdraw the acceptance</v-btn>
    </div>
    <blockquote v-if="fix.remark" class="remark">
      <p>{{ fix.remark.text }}</p>
      <footer class="faint">
        {{ fix.remark.by }}, <TimeAt :iso="fix.remark.at" /><template v-if="fix.remark.page"
          >, on <span class="mono">{{ fix.remark.page }}</span></template
        >
      </footer>
    </blockquote>
    <div v-if="isOpen && !isRemark" class="buttons">
      <AuditProgress v-if="running" :audit="running" class="run" />
      <v-btn v-else size="small" :prepend-icon="mdiEyeRefreshOutline" @click="audits.checkAgain([id])"
        >Look whether it is gone</v-btn
      >
    </div>
    <p v-if="fix.state === 'to verify'" class="faint">
      {{
        isRemark
          ? 'No audit can see this: look, then say that it is verified.'
          : 'The next look will say whether it is verified.'
      }}
    </p>
    <div class="pair">
      <v-select
        :model-value="fix.contactId ? `client ${fix.contactId}` : (fix.ownerId ?? 0)"
        :items="owners"
        label="Owner"
        @update:model-value="setOwner"
      />
      <DayInput
        :model-value="fix.dueDate ?? ''"
        label="Due"
        @update:model-value="change({ dueDate: $event })"
      />
    </div>
    <form class="pair" @submit.prevent="say">
      <v-text-field v-model="comment" label="Comment" /><v-btn type="submit" size="small" class="send"
        >Add</v-btn
      >
    </form>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <ol class="history" aria-label="History">
      <li v-for="e in fix.events" :key="e.id">
        <span class="faint num"><TimeAt :iso="e.at" /></span> <b>{{ e.by }}</b> {{ WORDS[e.kind] ?? e.kind
        }}{{ e.kind === 'state' ? ` ${e.to}` : '' }}<template v-if="e.text">: {{ e.text }}</template>
      </li>
    </ol>
  </div>
  <p v-else-if="fault" class="fray" role="alert">{{ fault }}</p>
</template>

<style scoped>
.work {
  display: grid;
  gap: 10px;
  min-width: 0;
}
.buttons {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
.run {
  width: 100%;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  align-items: center;
}
form.pair {
  grid-template-columns: 1fr auto;
}
.remark {
  margin: 0;
  border-left: 3px solid rgb(var(--v-theme-primary));
  padding-left: 10px;
  overflow-wrap: anywhere;
}
.remark p {
  white-space: pre-line;
  margin: 0;
}
.history {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 4px;
  font-size: 13px;
  overflow-wrap: anywhere;
}
</style>
