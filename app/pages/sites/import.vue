<script setup lang="ts">
import { quantity } from '#core/text/quantity';
import { CSV_TITLES, type CsvSites } from '#core/formats/sites-csv';

/** Sites in bulk: every bad cell is marked before anything is saved. */
useHead({ title: 'Add many sites – Armband' });
const notes = useNotes();
const text = ref('');
const name = ref('');
const seen = ref<CsvSites | null>(null);
const wrong = ref('');
const onlyBad = ref(false);
const good = computed(() => seen.value?.rows.filter((r) => r.site).length ?? 0);
const bad = computed(() => (seen.value?.rows.length ?? 0) - good.value);
const shown = computed(() => (seen.value?.rows ?? []).filter((r) => !onlyBad.value || !r.site).slice(0, 500));
const {
  run: look,
  busy: looking,
  fault: unread,
} = useAction(
  async () => {
    seen.value = null;
    seen.value = await api('/api/sites/look', { method: 'POST', body: { text: text.value } });
    onlyBad.value = bad.value > 0 && seen.value.rows.length > 20;
  },
  { inPlace: true },
);
async function choose(file: File): Promise<void> {
  if (file.size > 3_000_000) {
    wrong.value = `${file.name} is larger than 3 MB: split it.`;
    return;
  }
  wrong.value = '';
  name.value = file.name;
  text.value = await file.text();
  await look();
}
const {
  run: save,
  busy: saving,
  fault: unsaved,
} = useAction(
  async () => {
    const { taken, left } = await api('/api/sites/import', {
      method: 'POST',
      body: { text: text.value, onlyGood: bad.value > 0 },
    });
    notes.say(`${quantity(taken, 'site is', 'sites are')} added${left ? `, ${left} left out` : ''}.`);
    await navigateTo('/');
  },
  { inPlace: true },
);
const busy = computed(() => looking.value || saving.value);
const fault = computed(() => wrong.value || unread.value || unsaved.value);
const wrongIn = (row: CsvSites['rows'][number], column: number): string =>
  row.faults
    .filter((f) => f.column === column)
    .map((f) => f.message)
    .join('; ');
function sample(): void {
  saveText(
    'sites.csv',
    `${CSV_TITLES.join(',')}\r\nTarn Planetarium,Tarn Trust,https://www.tarn.example/,https://tarn.draft.host.example/,building,2027-03-01,no,,Look up,en-GB,hello@tarn.example,+44 1632 960101,www.tarn.example,tarn.example\r\n`,
    'text/csv',
  );
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Add many sites</h1>
      <span v-if="name" class="faint">{{ name }}</span><span class="spring" /><v-btn
        href="/api/sites/export"
        variant="text"
        download
        >All sites as CSV</v-btn
      ><v-btn variant="text" @click="sample">An example file</v-btn
      ><v-btn to="/" variant="text">Cancel</v-btn>
      <v-btn
        v-if="seen"
        color="primary"
        variant="flat"
        :disabled="!good || seen.faults.length > 0"
        :loading="busy"
        @click="save()"
        >{{
          bad ? `Add ${quantity(good, 'good one')}, leave ${bad} out` : `Add ${quantity(good, 'site')}`
        }}</v-btn
      >
    </div>
    <p v-for="f in [fault, ...(seen?.faults ?? [])].filter(Boolean)" :key="f" class="fray" role="alert">
      {{ f }}
    </p>
    <section class="sheet give">
      <p>
        A table with a line of headings: {{ CSV_TITLES.join(', ') }}. Name and live address are needed; the
        order is free, other columns are passed over. Nothing is saved before you have seen it.
      </p>
      <v-textarea
        v-model="text"
        label="Paste the table here"
        rows="4"
        max-rows="10"
        auto-grow
        class="code"
        placeholder="name,client,live address"
      />
      <div class="buttons">
        <v-btn
          :disabled="!text.trim() || busy"
          @click="
            name = '';
            look();
          "
          >Look at it</v-btn
        ><FilePick label="Choose a CSV file" accept=".csv,.tsv,text/csv,text/plain" @chosen="choose" />
      </div>
    </section>
    <template v-if="seen?.rows.length">
      <div class="page-head">
        <h2 class="num">
          {{ seen.rows.length }} rows: {{ good }} good<template v-if="bad"
            >, <span class="fray">{{ bad }} with faults</span></template
          >
        </h2>
        <v-checkbox v-if="bad" v-model="onlyBad" label="only those with faults" />
      </div>
      <div class="sheet scroll">
        <table>
          <thead>
            <tr>
              <th class="num">line</th>
              <th v-for="(c, i) in seen.columns" :key="i" :class="{ faint: !c.known }">
                {{ c.title }}<span v-if="!c.known"> (passed over)</span>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in shown" :key="r.line">
              <td class="num" :class="{ fray: !r.site }">
                {{ r.line }}<span v-if="wrongIn(r, -1)" class="message">{{ wrongIn(r, -1) }}</span>
              </td>
              <td v-for="(c, i) in r.cells" :key="i" :class="{ bad: wrongIn(r, i) }">
                <span class="cell">{{ c || (wrongIn(r, i) ? '(empty)' : '') }}</span><span
                  v-if="wrongIn(r, i)"
                  class="message"
                  >{{ wrongIn(r, i) }}</span
                >
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="shown.length === 500" class="faint">The first 500 rows are shown.</p>
    </template>
  </div>
</template>

<style scoped>
.give {
  padding: 16px;
  display: grid;
  gap: 12px;
  margin-bottom: 14px;
}
.buttons {
  display: flex;
  gap: 8px;
  align-items: center;
}
.code :deep(textarea) {
  font-family: var(--mono);
  font-size: 12px !important;
}
.scroll {
  overflow: auto;
  max-height: calc(100vh - 200px);
}
table {
  border-collapse: collapse;
  font-size: 13px;
}
th {
  text-align: left;
  position: sticky;
  top: 0;
  background: rgb(var(--v-theme-surface));
  font-weight: 600;
  white-space: nowrap;
}
td,
th {
  padding: 5px 10px;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
  vertical-align: top;
}
.cell {
  white-space: nowrap;
}
td.bad {
  outline: 1px solid rgb(var(--v-theme-error));
  outline-offset: -1px;
}
.message {
  display: block;
  color: rgb(var(--v-theme-error));
  font-size: 12px;
  min-width: 130px;
  max-width: 220px;
}
</style>
