<script setup lang="ts">
import { CLOSED_STATES } from '#core/facts/fix';
import { SECTION_TITLES } from '#core/facts/finding';
import { isOpenFault } from '#core/score/urgency';
import { pointsText } from '#core/text/points';
import { placesText } from '#core/text/scope-words';
import type { LedgerFinding } from '~/types';

/** One check in the ledger. */
const props = defineProps<{ finding: LedgerFinding; chosen: boolean; narrow: boolean; sectioned: boolean }>();
const isQuiet = computed(() => ['passed', 'inapplicable'].includes(props.finding.outcome));
const isFault = computed(() => isOpenFault(props.finding));
const howMany = computed(() =>
  placesText(props.finding.scope, props.finding.failing, props.finding.placeCount),
);
/** What was found; how many stands in a column of its own. */
const found = computed(() => {
  const text = props.finding.found ?? props.finding.reason ?? '';
  const prefix = `${howMany.value}: `;
  return howMany.value && text.startsWith(prefix) ? text.slice(prefix.length) : text;
});
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
    <span role="gridcell" class="check"
      ><span class="title">{{ finding.title }}</span
      ><span class="small faint"
        ><span :class="{ fray: isFault && finding.severity === 'blocker' }">{{ finding.severity }}</span
        ><template v-if="!sectioned">, {{ SECTION_TITLES[finding.section] }}</template></span
      ></span
    >
    <span role="gridcell" class="expected two faint" :title="finding.expected">{{
      finding.expected ?? ''
    }}</span>
    <span role="gridcell" class="found two" :title="found">{{ found }}</span>
    <span role="gridcell" class="num howmany faint">{{ howMany }}</span>
    <span role="gridcell" class="num right points" :class="{ fray: finding.points }">{{
      finding.points ? pointsText(finding.points) : ''
    }}</span>
    <span role="gridcell" class="fix cut" :class="{ faint: isClosed }">{{ fixWords }}</span>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: var(--ledger-columns);
  gap: 12px;
  align-items: center;
  min-height: 34px;
  padding: 5px 12px;
  cursor: pointer;
  scroll-margin: 220px 0 60px;
  line-height: 1.3;
}
.row + .row {
  border-top: 1px solid rgb(var(--v-theme-rule), 0.6);
}
.row:hover {
  background: rgb(var(--v-theme-primary), 0.05);
}
.row.at {
  background: rgb(var(--v-theme-primary), 0.12);
}
.check {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.title {
  font-weight: 600;
}
.quiet .title {
  font-weight: 400;
  color: rgb(var(--v-theme-faint));
}
.small {
  font-size: 12px;
}
.two {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
  overflow-wrap: anywhere;
}
.right {
  text-align: right;
}
.narrow .expected,
.narrow .howmany,
.narrow .fix {
  display: none;
}
@media (max-width: 1100px) {
  .expected,
  .howmany,
  .fix {
    display: none;
  }
}
@media (max-width: 600px) {
  .row,
  .row.narrow {
    grid-template-columns: 84px minmax(0, 1fr) auto;
    row-gap: 2px;
    padding: 8px 10px;
  }
  .outcome {
    align-self: start;
  }
  .found {
    grid-column: 2 / 4;
    grid-row: 2;
    font-size: 13px;
    -webkit-line-clamp: 3;
  }
  .points {
    grid-column: 3;
    grid-row: 1;
    align-self: start;
  }
}
</style>
