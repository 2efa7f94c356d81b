<script setup lang="ts">
import { headingOf } from '#core/facts/heading';
import { CLOSED_STATES } from '#core/facts/fix';
import { SECTION_TITLES } from '#core/facts/finding';
import { isOpenFault } from '#core/score/urgency';
import { pointsText } from '#core/text/points';
import { placesText } from '#core/text/scope-words';
import type { LedgerLine } from '~/types';

/** One check in the ledger. */
const props = defineProps<{ line: LedgerLine; chosen: boolean; narrow: boolean; sectioned: boolean }>();
const isQuiet = computed(() => ['passed', 'inapplicable'].includes(props.line.outcome));
const isFault = computed(() => isOpenFault(props.line));
const howMany = computed(() => placesText(props.line.scope, props.line.failing, props.line.placeCount));
/** What was found; how many stands in a column of its own. */
const found = computed(() => {
  const text = props.line.found ?? '';
  const prefix = `${howMany.value}: `;
  return howMany.value && text.startsWith(prefix) ? text.slice(prefix.length) : text;
});
const isClosed = computed(() => !props.line.fix || CLOSED_STATES.has(props.line.fix.state));
const fixWords = computed(() => {
  const { fix } = props.line;
  if (!fix) return '';
  return fix.owner ? `${fix.state}, ${fix.owner.split(' ')[0]}` : fix.state;
});
</script>

<template>
  <tr :id="`row-${line.check}`" :aria-selected="chosen" :class="{ at: chosen, quiet: isQuiet }" tabindex="-1">
    <td class="outcome"><OutcomeMark :stitch="outcomeSign(line)" /></td>
    <td class="check">
      <span class="title">{{ headingOf(line) }}</span><span class="small faint"
        ><span :class="{ fray: isFault && line.severity === 'blocker' }">{{ line.severity }}</span
        ><template v-if="!sectioned">, {{ SECTION_TITLES[line.section] }}</template></span
      >
    </td>
    <td v-if="!narrow" class="expected faint" :title="line.expected ?? ''">
      <span class="two">{{ line.expected ?? '' }}</span>
    </td>
    <td class="found" :title="found">
      <span class="two">{{ found }}</span>
    </td>
    <td v-if="!narrow" class="num howmany faint">{{ howMany }}</td>
    <td class="num right points" :class="{ fray: line.points }">
      {{ line.points ? pointsText(line.points) : '' }}
    </td>
    <td v-if="!narrow" class="fix" :class="{ faint: isClosed }">
      <span class="cut">{{ fixWords }}</span>
    </td>
  </tr>
</template>

<style scoped>
tr {
  cursor: pointer;
  scroll-margin: 220px 0 60px;
}
tr:hover {
  background: rgb(var(--v-theme-primary), 0.05);
}
tr.at {
  background: rgb(var(--v-theme-primary), 0.12);
}
td {
  padding: 5px 12px !important;
  line-height: 1.3;
}
.title,
.check .small {
  display: block;
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
.right {
  text-align: right;
}
@media (max-width: 600px) {
  tr {
    display: grid;
    grid-template-columns: 84px minmax(0, 1fr) auto;
    row-gap: 2px;
    padding: 8px 10px;
    border-bottom: 1px solid rgb(var(--v-theme-rule), 0.6);
  }
  td {
    padding: 0 4px 0 0 !important;
    border: 0 !important;
    height: auto !important;
  }
  .found {
    grid-column: 2 / 4;
    grid-row: 2;
    font-size: 13px;
  }
  .points {
    grid-column: 3;
    grid-row: 1;
  }
}
</style>
