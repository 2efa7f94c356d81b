<script setup lang="ts">
import { matching } from '#core/text/matching';

/** The search that goes to any site, check or action. */
const open = defineModel<boolean>({ required: true });
const session = useSession();
const words = ref('');
const at = ref(0);
const field = ref<{ focus: () => void } | null>(null);
interface Goal {
  label: string;
  hint: string;
  go: () => unknown;
}
/** Enter came before the list: it counts once that is here. */
const entered = ref(false);
const {
  data: sites,
  isFetching,
  isOld,
} = useApiQuery('/api/sites/find', {
  key: ['roster', 'find'],
  query: () => ({ words: words.value || undefined }),
  when: open,
});
const { data: checks } = useApiQuery('/api/catalogue', { key: ['catalogue'], when: open });
const loading = computed(() => isFetching.value || isOld.value);
watch(open, (is) => {
  if (!is) return;
  words.value = '';
  at.value = 0;
  entered.value = false;
  void nextTick(() => field.value?.focus());
});
watch(loading, (is) => {
  if (!is && open.value && entered.value) go(goals.value[at.value]);
});

const MOST = 12;
const screens = computed((): Goal[] => [
  { label: 'Add a site', hint: 'action', go: () => navigateTo('/sites/new') },
  { label: 'Roster', hint: 'screen', go: () => navigateTo('/') },
  { label: 'Add many sites from a CSV file', hint: 'action', go: () => navigateTo('/sites/import') },
  { label: 'Fixes', hint: 'screen', go: () => navigateTo('/fixes') },
  { label: 'Clients', hint: 'screen', go: () => navigateTo('/clients') },
  { label: 'Checklists', hint: 'screen', go: () => navigateTo('/checklists') },
  { label: 'Host profiles', hint: 'screen', go: () => navigateTo('/host-profiles') },
  ...(session.me?.demo
    ? [{ label: 'Practice net', hint: 'screen', go: () => navigateTo('/practice-net') }]
    : []),
  ...(checks.value ?? []).map((c) => ({
    label: c.title,
    hint: c.id,
    go: () => navigateTo(`/fixes?words=${encodeURIComponent(c.id)}`),
  })),
]);
/** Sites as the server finds them, with what can be done there; then screens, actions and checks. */
const goals = computed<Goal[]>(() => {
  // "audit tarn" looks for a site too
  const matches = matching(words.value);
  const found = (sites.value ?? []).map((s) => ({
    label: s.name,
    hint: s.client === s.name ? 'site' : s.client,
    go: () => navigateTo(`/sites/${s.id}`),
  }));
  const acts = (sites.value ?? []).flatMap((s) =>
    s.environmentId
      ? [{ label: `Audit ${s.name} now`, hint: 'action', go: () => useAudits().start([s.environmentId!]) }]
      : [],
  );
  const others = screens.value.filter((g) => matches(`${g.label} ${g.hint}`));
  const few = Math.max(2, MOST - 2 - Math.min(others.length, 4));
  return [...found.slice(0, few), ...acts.slice(0, few), ...others].slice(0, MOST);
});
watch(words, () => {
  at.value = 0;
  entered.value = false;
});
function go(g: Goal | undefined): void {
  if (!g) return;
  open.value = false;
  void g.go();
}
/** Goes to what is chosen, once the list answers what was typed last. */
async function enter(): Promise<void> {
  entered.value = true;
  await nextTick();
  if (!loading.value) go(goals.value[at.value]);
}
function keys(e: KeyboardEvent): void {
  if (e.key === 'ArrowDown') {
    e.preventDefault();
    at.value = Math.min(at.value + 1, goals.value.length - 1);
  }
  if (e.key === 'ArrowUp') {
    e.preventDefault();
    at.value = Math.max(at.value - 1, 0);
  }
  if (e.key === 'Enter') {
    e.preventDefault();
    void enter();
  }
}
</script>

<template>
  <v-dialog v-model="open" width="560" location="top" transition="fade-transition" aria-label="Go to">
    <div class="sheet box">
      <v-text-field
        ref="field"
        v-model="words"
        placeholder="A site, a check, or what to do"
        aria-label="Go to"
        @keydown="keys"
      />
      <ul role="listbox" aria-label="Where to go">
        <li
          v-for="(g, i) in goals"
          :key="g.label + g.hint"
          role="option"
          :aria-selected="i === at"
          :class="{ on: i === at }"
          @mousemove="at = i"
          @click="go(g)"
        >
          <span class="cut">{{ g.label }}</span><span class="faint cut">{{ g.hint }}</span>
        </li>
      </ul>
      <p v-if="!goals.length" class="faint">
        {{
          loading
            ? 'The list is on its way …'
            : 'Nothing is called that. Try a site’s name or part of a check’s.'
        }}
      </p>
    </div>
  </v-dialog>
</template>

<style scoped>
.box {
  padding: 10px;
  box-shadow: 0 12px 40px rgb(0 0 0 / 25%);
}
ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  padding: 6px 8px;
  border-radius: 4px;
  cursor: pointer;
}
li.on {
  background: rgb(var(--v-theme-primary), 0.12);
}
p {
  padding: 8px;
}
</style>
