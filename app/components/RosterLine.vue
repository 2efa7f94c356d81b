<script setup lang="ts">
import { openFixesOf, shownEnvironment } from '~/composables/roster-list';
import type { RosterRow, RunningAudit } from '~/types';

/** One site in the roster. */
const props = defineProps<{ site: RosterRow; running: RunningAudit | undefined }>();
const chosen = defineModel<boolean>({ required: true });
const environment = computed(() => shownEnvironment(props.site));
const audit = computed(() => environment.value?.audit ?? null);
/** How the score changed since the audit before, with its sign. */
const change = computed(() => {
  const { score = null, scoreBefore = null } = audit.value ?? {};
  if (score === null || scoreBefore === null || score === scoreBefore) return '';
  return `${score > scoreBefore ? '+' : '−'}${Math.abs(score - scoreBefore)}`;
});
/** What holds, or costs most, in words. */
const worst = computed(() => {
  if (!audit.value) return '';
  if (audit.value.ofOldAddress) return 'found at the address before it was changed';
  if (audit.value.unreached) return audit.value.unreached;
  const { worst: fault } = audit.value;
  return fault ? `${fault.title}: ${fault.found}` : 'nothing failed';
});
const PROVISIONAL = 'provisional: less than 80 % of the weight is decided';
</script>

<template>
  <div class="row" role="row" :class="{ chosen }">
    <span role="cell" class="tick"
      ><input v-model="chosen" type="checkbox" :aria-label="`Choose ${site.name}`"
    /></span>
    <span role="cell" class="site"
      ><NuxtLink :to="`/sites/${site.id}`" class="name cut">{{ site.name }}</NuxtLink
      ><span v-if="site.client !== site.name" class="faint cut small">{{ site.client }}</span></span
    >
    <span role="cell" class="stage"
      ><span class="cut">{{ site.stage }}</span
      ><span v-if="site.launchDate" class="faint cut small"
        >{{ site.stage === 'launched' ? '' : 'launch ' }}{{ daysFrom(site.launchDate) }}</span
      ></span
    >
    <span role="cell" class="band">
      <AuditProgress v-if="running" :audit="running" class="grow" />
      <template v-else
        ><BandStrip :band="audit?.band ?? null" /><span
          class="num score"
          :title="audit?.provisional ? PROVISIONAL : ''"
          >{{ audit?.score ?? '–' }}<span v-if="audit?.provisional" class="faint">?</span
          ><span v-if="change" class="faint change">{{ change }}</span></span
        ></template
      >
    </span>
    <span role="cell" class="verdict"
      ><span v-if="audit" class="cut"
        ><GateWord :gate="audit.gate" :note="audit.gateNote" /><span class="faint small"
          >, {{ environment?.name.toLowerCase() }}</span
        ></span
      ><b v-else>never audited</b
      ><span class="cut small" :class="{ fray: audit?.gate === 'held' }" :title="worst">{{
        worst
      }}</span></span
    >
    <span role="cell" class="right num fixes">{{ openFixesOf(site) }}</span>
    <span role="cell" class="audit faint">{{ audit ? ago(audit.at) : 'never' }}</span>
  </div>
</template>

<style scoped>
.site,
.stage,
.verdict {
  display: flex;
  flex-direction: column;
  line-height: 1.25;
}
.band {
  display: flex;
  align-items: center;
  gap: 10px;
}
.row > span {
  min-width: 0;
}
.grow {
  flex: 1;
}
.score {
  font-weight: 600;
  font-size: 15px;
  min-width: 52px;
}
.change {
  font-weight: 400;
  font-size: 12px;
  margin-left: 4px;
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
  font-size: 12px;
}
.right {
  text-align: right;
}
input {
  accent-color: rgb(var(--v-theme-primary));
  width: 15px;
  height: 15px;
}
@media (max-width: 1000px) {
  .stage,
  .fixes,
  .audit {
    display: none !important;
  }
}
@media (max-width: 600px) {
  .tick {
    display: none;
  }
  .band :deep(svg) {
    width: 76px;
  }
  .score {
    min-width: 40px;
  }
}
</style>
