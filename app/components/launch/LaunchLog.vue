<script setup lang="ts">
/** What was done at each launch of a site, when and by whom, and what was learnt. */
const props = defineProps<{ siteId: number }>();
const { data: launches, fault } = useApiQuery('/api/sites/:id/launches', {
  key: () => ['site', props.siteId, 'launches'],
  params: () => ({ id: props.siteId }),
});
const WORDS: Record<string, string> = {
  begun: 'began the launch',
  moved: 'planned another time',
  done: 'did',
  undone: 'not done after all:',
  proven: 'proven:',
  'went back': 'went back:',
  'left out': 'left out',
  'taken up': 'took up again',
  owner: 'gave away',
  anyway: 'wants to go anyway',
  went: 'said go',
  ended: 'ended the launch',
  'given up': 'gave the launch up',
};
</script>

<template>
  <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  <div v-else-if="launches && !launches.length" class="sheet empty">
    <p>This site was not launched by a run sheet yet.</p>
  </div>
  <section
    v-for="l in launches ?? []"
    :key="l.id"
    class="sheet log"
    :aria-label="`Log of launch ${l.number}`"
  >
    <h2>Launch {{ l.number }}</h2>
    <p class="faint">
      planned for <TimeAt :iso="l.plannedAt" /><template v-if="l.wentAt"
        >, went <TimeAt :iso="l.wentAt" /></template
      ><template v-if="l.endedAt">, {{ l.endedHow }} <TimeAt :iso="l.endedAt" /> by {{ l.endedBy }}</template>
    </p>
    <p v-if="l.learnt"><b>Learnt:</b> {{ l.learnt }}</p>
    <p v-if="l.waits.length">
      <b>Longest waits:</b>{{ ' '
      }}<template v-for="(w, i) in l.waits" :key="w.step"
        ><template v-if="i">; </template>{{ w.title }}, {{ spanText(w.ms) }}</template
      >.
    </p>
    <ol>
      <li v-for="(e, i) in l.events" :key="i">
        <span class="faint when"><TimeAt :iso="e.at" /></span>
        <span>
          <b v-if="e.by !== 'audit'" class="by">{{ e.by }}</b>
          <span :class="{ fray: e.kind === 'went back' }">{{ WORDS[e.kind] }}</span> {{ e.step }}
          <span v-if="e.text" class="faint">({{ e.text }})</span>
        </span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.log {
  padding: 14px 16px;
  display: grid;
  gap: 8px;
}
p {
  margin: 0;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
li {
  display: grid;
  grid-template-columns: 170px minmax(0, 1fr);
  gap: 12px;
  overflow-wrap: anywhere;
}
.by {
  margin-right: 4px;
}
@media (max-width: 700px) {
  li {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
}
</style>
