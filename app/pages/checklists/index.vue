<script setup lang="ts">
import { readChecklist } from '#core/entry/checklist';
import type { Checklist } from '#core/facts/checklist';
import type { ChecklistLine } from '~/types';

/** The agency's checklists and what each is for. */
useHead({ title: 'Checklists – Armband' });
const notes = useNotes();
const { data: list, fault: unread } = useApiQuery('/api/checklists', { key: ['checklists'] });
const free = (wanted: string): string =>
  unusedName(
    wanted,
    (list.value ?? []).map((x) => x.name),
  );
async function make(checklist: Checklist): Promise<void> {
  const { id } = await api('/api/checklists', { method: 'POST', body: checklist });
  await navigateTo(`/checklists/${id}`);
}
const { run: copy, fault: uncopied } = useAction(
  async (line: ChecklistLine) => {
    const { checklist } = await api('/api/checklists/:id', { params: { id: line.id } });
    await make({ ...(checklist as Checklist), name: free(`${line.name} copy`) });
  },
  { inPlace: true },
);
const { run: bring, fault: unfit } = useAction(
  async (file: File) => {
    const { checklist, faults } = await readChecklist(await readJsonFile(file));
    if (faults.length)
      throw new Error(
        `${file.name}: ${faults
          .slice(0, 3)
          .map((f) => f.message)
          .join('; ')}${faults.length > 3 ? `; and ${faults.length - 3} more` : ''}`,
      );
    const wanted = free(checklist.name);
    if (wanted !== checklist.name)
      notes.say(`There is a ${checklist.name} already; this one is named ${wanted}.`);
    await make({ ...checklist, name: wanted });
  },
  { inPlace: true },
);
const fault = computed(() => unread.value || uncopied.value || unfit.value);
const uses = (c: ChecklistLine): string => c.assignments.map((a) => a.title).join(', ');
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Checklists</h1>
      <span class="faint">What is asked of a site, how gravely, and within which limits.</span
      ><span class="spring" /><FilePick
        label="From a JSON file"
        accept=".json,application/json"
        @chosen="bring"
      />
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <div v-if="list" class="sheet">
      <div v-for="c in list" :key="c.id" class="row">
        <span class="who"
          ><NuxtLink :to="`/checklists/${c.id}`" class="name cut">{{ c.name }}</NuxtLink
          ><span class="faint cut small">{{ c.description }}</span></span
        ><span class="num"
          >{{ c.checks }} checks<span v-if="c.own" class="faint">, {{ c.own }} own</span></span
        ><span class="cut" :title="uses(c)"
          ><template v-if="uses(c)">{{ uses(c) }}</template
          ><span v-else class="faint">not assigned</span></span
        ><span class="faint cut">{{
          c.builtIn ? 'comes with Armband' : `version ${c.version}, ${c.savedBy ?? 'Armband'}`
        }}</span
        ><v-btn size="small" variant="text" :aria-label="`Copy ${c.name}`" @click="copy(c)">Copy</v-btn>
      </div>
    </div>
    <p v-if="list && list.every((c) => c.builtIn)" class="faint hint">
      Copy one to make it your own: other severities and limits, your own words, your own checks.
    </p>
    <v-progress-linear v-if="!list && !fault" indeterminate color="primary" aria-label="Loading" />
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(220px, 1.6fr) 130px minmax(120px, 1fr) minmax(120px, 0.8fr) 70px;
  gap: 14px;
  align-items: center;
  min-height: 52px;
  padding: 4px 12px;
}
.row + .row {
  border-top: 1px solid rgb(var(--v-theme-rule));
}
.who {
  display: grid;
  min-width: 0;
}
.name {
  font-weight: 600;
  color: inherit;
  text-decoration: none;
}
.name:hover {
  text-decoration: underline;
}
.small {
  font-size: 13px;
}
.hint {
  margin-top: 10px;
}
@media (max-width: 800px) {
  .row {
    grid-template-columns: minmax(0, 1fr) 80px 60px;
  }
  .row > .cut {
    display: none;
  }
}
</style>
