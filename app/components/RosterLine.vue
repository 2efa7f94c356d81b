<script setup lang="ts">
import type { RosterRow } from '~/types';

/** One site in the roster. */
const props = defineProps<{ site: RosterRow; chosen: boolean; narrow: boolean; phone: boolean }>();
const emit = defineEmits<{ choose: [on: boolean] }>();
const environment = computed(() => props.site.environment);
const audit = computed(() => environment.value?.audit ?? null);
const running = useRunning(environment);
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
  return fault ? [fault.title, fault.count ?? fault.found].filter(Boolean).join(': ') : 'nothing failed';
});
const PROVISIONAL = 'provisional: less than 80 % of the weight is decided';
</script>

<template>
  <tr :class="{ chosen }">
    <td v-if="!phone" class="tick">
      <!-- the browser's own: twenty of Vuetify's take longer to draw than all the rest of the rows -->
      <input
        type="checkbox"
        :checked="chosen"
        :aria-label="`Choose ${site.name}`"
        @change="emit('choose', ($event.target as HTMLInputElement).checked)"
      />
    </td>
    <td class="site">
      <NuxtLink :to="`/sites/${site.id}`" class="name cut">{{ site.name }}</NuxtLink><span
        v-if="site.client !== site.name"
        class="faint cut small"
        >{{ site.client }}</span
      >
    </td>
    <td v-if="!narrow" class="stage">
      <span class="cut">{{ site.stage }}</span><span v-if="site.launchDate" class="faint cut small"
        >{{ site.stage === 'launched' ? '' : 'launch ' }}{{ daysFrom(site.launchDate) }}</span
      >
    </td>
    <td class="band">
      <AuditProgress v-if="running" :audit="running" />
      <div v-else class="beside">
        <BandStrip :band="audit?.band ?? null" /><span
          class="num score"
          :title="audit?.provisional ? PROVISIONAL : ''"
          >{{ audit?.score ?? '–' }}<span v-if="audit?.provisional" class="faint">?</span
          ><span v-if="change" class="faint change">{{ change }}</span></span
        >
      </div>
    </td>
    <td class="verdict">
      <span v-if="audit" class="cut"
        ><GateWord :gate="audit.gate" :note="audit.gateNote" /><span class="faint small"
          >, {{ environment?.name.toLowerCase() }}</span
        ></span
      ><b v-else>never audited</b
      ><span class="cut small" :class="{ fray: audit?.gate === 'held' }" :title="worst">{{ worst }}</span>
    </td>
    <td v-if="!narrow" class="right num fixes">{{ site.openFixes }}</td>
    <td v-if="!narrow" class="audit faint">{{ audit ? ago(audit.at) : 'never' }}</td>
  </tr>
</template>

<style scoped>
td {
  line-height: 1.25;
  height: 44px !important;
}
td > .cut {
  display: block;
}
.tick input {
  accent-color: rgb(var(--v-theme-primary));
  width: 16px;
  height: 16px;
  margin-left: 7px;
}
.chosen {
  background: rgb(var(--v-theme-primary), 0.06);
}
.beside {
  display: flex;
  align-items: center;
  gap: 10px;
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
@media (max-width: 600px) {
  .band :deep(svg) {
    width: 76px;
  }
  .score {
    min-width: 40px;
  }
}
</style>
