<script setup lang="ts">
import { CLOSED_STATES } from '#core/facts/fix';
import { isOpenFault } from '#core/score/urgency';
import type { LedgerFinding } from '~/types';

/** One check in the ledger. */
const props = defineProps<{ finding: LedgerFinding; chosen: boolean; narrow: boolean }>();
const isQuiet = computed(() => ['passed', 'inapplicable'].includes(props.finding.outcome));
const found = computed(() => props.finding.found ?? props.finding.reason ?? '');
const isClosed = computed(() => !props.finding.fix || CLOSED_STATES.has(props.finding.fix.state));
const fixWords = computed(() => {
  const { fix } = props.finding;
  if (!fix) return '';
  return fix.owner ? `${fix.state}, ${fix.owner.split(' ')[0]}` : fix.state;
});
</script>

<template>
  <div
    :id="`row-${finding.check}`"
    class="row"
    role="row"
    :aria-selected="chosen"
    :class="{ at: chosen, quiet: isQuiet, narrow }"
    tabindex="-1"
  >
    <span role="gridcell" class="outcome"><StitchMark :stitch="stitchOf(finding)" /></span>
    <CheckTitle
      role="gridcell"
      :title="finding.title"
      :severity="finding.severity"
      :open="isOpenFault(finding)"
    />
    <span role="gridcell" class="expected cut faint" :title="finding.expected">{{
      finding.expected ?? ''
    }}</span>
    <span role="gridcell" class="found cut" :title="found">{{ found }}</span>
    <span role="gridcell" class="num right placecount faint" title="places">{{
      finding.placeCount || ''
    }}</span>
    <span role="gridcell" class="num right weight faint" title="weight">{{ finding.weight }}</span>
    <span role="gridcell" class="fix cut" :class="{ faint: isClosed }">{{ fixWords }}</span>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 118px minmax(190px, 1.2fr) minmax(80px, 0.8fr) minmax(120px, 1.3fr) 34px 28px 104px;
  gap: 12px;
  align-items: center;
  min-height: 34px;
  padding: 0 12px;
  cursor: pointer;
  scroll-margin: 220px 0 60px;
}
.row:hover {
  background: rgb(var(--v-theme-primary), 0.05);
}
.row.at {
  background: rgb(var(--v-theme-primary), 0.12);
}
.row.quiet .title {
  color: rgb(var(--v-theme-faint));
}
.right {
  text-align: right;
}
.row.narrow {
  grid-template-columns: 118px minmax(150px, 1.2fr) minmax(90px, 1fr) 84px;
}
.narrow .expected,
.narrow .placecount,
.narrow .weight {
  display: none;
}
@media (max-width: 1100px) {
  .row {
    grid-template-columns: 118px minmax(150px, 1.2fr) minmax(90px, 1fr) 84px;
  }
  .expected,
  .placecount,
  .weight {
    display: none;
  }
}
@media (max-width: 600px) {
  .row,
  .row.narrow {
    grid-template-columns: 84px minmax(0, 1fr);
    row-gap: 0;
    padding: 6px 10px;
  }
  .outcome {
    align-self: start;
  }
  .found {
    grid-column: 2;
    white-space: normal;
    font-size: 13px;
  }
  .fix {
    display: none;
  }
  .title {
    white-space: normal;
  }
  .title .cut {
    flex: 1;
    white-space: normal;
  }
}
</style>
