<script setup lang="ts">
import type { Ledger } from '~/types';
import { SECTION_TITLES } from '#core/facts/finding';

/** How this number came about: every term, and the sum. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ placeId: number; siteId: number }>();
const emit = defineEmits<{ go: [check: string] }>();
const ledger = ref<Ledger | null>(null);
watch(open, async (is) => {
  if (is)
    ledger.value = await api('/api/environments/:id/ledger', { params: { id: props.placeId } }).catch(
      () => null,
    );
});
const points = (tenths: number): string =>
  tenths === 0
    ? 'less than 0.1'
    : `+${Math.floor(tenths / 10)}.${tenths % 10} ${tenths === 10 ? 'point' : 'points'}`;
function go(check: string): void {
  open.value = false;
  emit('go', check);
}
const credit = (c: { num: number; den: number }): string =>
  c.den === 1 ? String(c.num) : `${c.num}/${c.den}`;
</script>

<template>
  <v-dialog v-model="open" width="760" scrollable aria-label="How this number came about">
    <v-card v-if="ledger?.audit && ledger.terms" class="sum">
      <div class="top">
        <h1>How this number came about</h1>
        <p v-if="ledger.audit.result.score !== null">
          Score = 100 × {{ ledger.terms.earned }} ÷ {{ ledger.terms.possible }} =
          <b class="num">{{ ledger.audit.result.score }}</b>, rounded down. Each check earns its weight times
          its credit; a failed check’s credit is passing places ÷ decided places. What is undecided or does
          not apply is left out.
        </p>
        <p v-else>Nothing was decided, so there is no score.</p>
        <p class="faint">
          Gate: {{ ledger.audit.result.gateNote }}. Coverage: {{ ledger.audit.result.coverage ?? '–' }} % of
          the applicable weight was decided. Checklist: {{ ledger.audit.checklist }}.
        </p>
      </div>
      <v-card-text class="scroll">
        <section v-if="ledger.help.length" class="help">
          <h2>What would help most</h2>
          <ol>
            <li v-for="h in ledger.help.slice(0, 8)" :key="h.check">
              <NuxtLink :to="`/sites/${siteId}?place=${placeId}&check=${h.check}`" @click="go(h.check)">{{
                h.title
              }}</NuxtLink>
              <span class="faint">{{ h.severity }}</span>
              <b v-if="h.holds" class="fray">holds the gate</b>
              <span class="num">{{ points(h.tenths) }}</span>
            </li>
          </ol>
        </section>
        <table class="num">
          <thead>
            <tr>
              <th>Section</th>
              <th>Check</th>
              <th class="r">Weight</th>
              <th class="r">× credit</th>
              <th class="r">= earned</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="t in ledger.terms.terms"
              :key="t.check"
              :class="{ short: t.credit.num < t.credit.den }"
            >
              <td class="faint">{{ SECTION_TITLES[t.section] }}</td>
              <td>{{ t.title }}</td>
              <td class="r">{{ t.weight }}</td>
              <td class="r">{{ credit(t.credit) }}</td>
              <td class="r">{{ t.earned }}</td>
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <td />
              <td>Sum</td>
              <td class="r">{{ ledger.terms.possible }}</td>
              <td />
              <td class="r">{{ ledger.terms.earned }}</td>
            </tr>
          </tfoot>
        </table>
      </v-card-text>
      <div class="foot"><v-btn @click="open = false">Close</v-btn></div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.top {
  padding: 18px 20px 6px;
  display: grid;
  gap: 8px;
}
.scroll {
  padding: 6px 20px !important;
  letter-spacing: 0;
}
.foot {
  padding: 12px 20px;
  text-align: right;
}
.help {
  border-bottom: 1px solid rgb(var(--v-theme-rule));
  padding-bottom: 12px;
  margin-bottom: 10px;
}
.help ol {
  padding-left: 22px;
  display: grid;
  gap: 3px;
  margin-top: 6px;
}
.help li > * + * {
  margin-left: 4px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 600;
  color: rgb(var(--v-theme-faint));
  position: sticky;
  top: 0;
  background: rgb(var(--v-theme-surface));
}
td,
th {
  padding: 4px 8px 4px 0;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
.r {
  text-align: right;
  padding-left: 8px;
}
.short td {
  color: rgb(var(--v-theme-error));
}
tfoot td {
  font-weight: 700;
  border-bottom: 0;
}
</style>
