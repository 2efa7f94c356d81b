<script setup lang="ts">
import { NuxtLink } from '#components';
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
/** The fault that holds or costs most. */
const fault = computed(() => {
  const { ofOldAddress, unreached, worst: first } = audit.value ?? {};
  return ofOldAddress || unreached ? undefined : first;
});
/** It in words, and how much it touches. */
const worst = computed(() => {
  if (!audit.value) return '';
  if (audit.value.ofOldAddress) return 'found at the address before it was changed';
  if (audit.value.unreached) return audit.value.unreached;
  const { title, count, found } = fault.value ?? {};
  return title ? [title, count ?? found].filter(Boolean).join(': ') : 'nothing failed';
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
      <span class="cut">{{ site.stage }}</span><span v-if="launchWords(site)" class="faint cut small">{{
        launchWords(site)
      }}</span>
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
      <b v-if="!audit">never audited</b
      ><component
        :is="fault ? NuxtLink : 'span'"
        v-else
        class="two"
        :to="fault ? `/sites/${site.id}?environment=${environment!.id}&check=${fault.check}` : undefined"
        :title="worst"
        ><GateWord :gate="audit.gate" :note="audit.gateNote" /><span class="faint small"
          >, {{ environment?.name.toLowerCase() }}</span
        ><br /><span class="small" :class="{ fray: audit.gate === 'held' }">{{ worst }}</span></component
      >
    </td>
    <td v-if="!narrow" class="right num fixes">{{ site.openFixes }}</td>
    <td v-if="!narrow" class="audit faint">{{ audit ? ago(audit.at) : 'never' }}</td>
  </tr>
</template>

<style scoped>
td {
  line-height: 1.25;
  height: 58px !important;
}
td > .cut {
  display: block;
}
.two {
  color: inherit;
  text-decoration: none;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 3;
  line-clamp: 3;
  overflow: hidden;
}
a.two:hover .small:last-child {
  text-decoration: underline;
}
/* all of it for whoever comes by keyboard: a title shows to a mouse alone */
a.two:focus-visible {
  display: block;
  overflow: visible;
  position: relative;
  z-index: 1;
  background: rgb(var(--v-theme-surface));
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
