<script setup lang="ts">
import { UNSCORED_BELOW } from '#core/score/score';
import { SECTION_TITLES } from '#core/facts/finding';
import { pointsText } from '#core/text/points';
import type { Answer } from '~/composables/api';

/** How a score came about: every check that loses points, the largest loss first. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ environmentId: number; siteId: number }>();
const emit = defineEmits<{ go: [check: string] }>();
const { data: score } = useApiQuery('/api/environments/:id/ledger/sum', {
  key: () => ['site', props.siteId, 'ledger', props.environmentId],
  params: () => ({ id: props.environmentId }),
  when: open,
});
type Term = Answer<'/api/environments/:id/ledger/sum'>['sum']['terms'][number];
const failing = ({ share }: Term): string =>
  share.num === share.den ? 'all' : `${share.num} of ${share.den}`;
function go(check: string): void {
  open.value = false;
  emit('go', check);
}
</script>

<template>
  <v-dialog v-model="open" width="760" scrollable aria-label="How this score came about">
    <v-card v-if="score" class="sum">
      <div class="top">
        <h1>How this score came about</h1>
        <p v-if="score.result.score !== null">
          100 − <b class="num">{{ pointsText(score.result.lost) }}</b> points lost
          <template v-if="score.sum.lost.includes('/')">(exactly {{ score.sum.lost }})</template> =
          <b class="num">{{ score.result.score }}</b>, rounded down<template v-if="score.result.lost > 100"
            >, and never below 0</template
          >. A failed check loses its weight × (½ + ½ × the share that fails): half for being there, half by
          how much of the site it touches. What passes adds nothing; what is accepted or undecided loses
          nothing.
        </p>
        <p v-else-if="score.result.unreached">
          Nothing of the site was reached, so there is no score: {{ score.result.unreached }}.
        </p>
        <p v-else-if="score.result.unscored">
          {{ UNSCORED_BELOW }} % of the checklist’s weight has to be decided for a score:
          {{ score.result.unscored }}.
        </p>
        <p v-else>Nothing was decided, so there is no score.</p>
        <p class="faint">
          Gate: {{ score.result.gateNote }}. Coverage: {{ score.result.coverage ?? '–' }} % of the applicable
          weight was decided. Checklist: {{ score.checklist }}.
        </p>
      </div>
      <v-card-text class="scroll">
        <v-table v-if="score.sum.terms.length" density="compact" class="terms num">
          <caption class="visually-hidden">
            Points lost by each failed check
          </caption>
          <thead>
            <tr>
              <th>What would help most</th>
              <th>Section</th>
              <th class="r">Weight</th>
              <th class="r">Fails</th>
              <th class="r">Points lost</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="t in score.sum.terms" :key="t.check">
              <td>
                <NuxtLink
                  :to="`/sites/${siteId}?environment=${environmentId}&check=${t.check}`"
                  @click="go(t.check)"
                  >{{ t.title }}</NuxtLink
                >
                {{ ' ' }}<span class="faint">{{ t.severity }}</span
                ><b v-if="t.severity === 'blocker'" class="fray"> holds the gate</b>
              </td>
              <td class="faint">{{ SECTION_TITLES[t.section] }}</td>
              <td class="r">{{ t.weight }}</td>
              <td class="r">{{ failing(t) }}</td>
              <td class="r" :title="t.lost">{{ pointsText(t.points) }}</td>
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <td>Sum</td>
              <td />
              <td />
              <td />
              <td class="r">{{ pointsText(score.result.lost) }}</td>
            </tr>
          </tfoot>
        </v-table>
        <p v-else class="faint">No check loses points.</p>
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
.terms :deep(td),
.terms :deep(th) {
  padding: 0 8px 0 0 !important;
}
.r {
  text-align: right !important;
  white-space: nowrap;
}
tfoot td {
  font-weight: 700;
}
</style>
