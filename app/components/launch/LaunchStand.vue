<script setup lang="ts">
import { quantity } from '#core/text/quantity';

/** Can it be launched? What stands against it, and whether the client said yes. */
const props = defineProps<{ siteId: number }>();
const { data: stand, fault } = useApiQuery('/api/sites/:id/launch', {
  key: () => ['site', props.siteId, 'launch'],
  params: () => ({ id: props.siteId }),
});
const all = computed(() => (stand.value?.environments ?? []).flatMap((e) => e.against));
const failed = computed(() => all.value.filter((a) => a.outcome === 'failed').length);
const unseen = computed(() => (stand.value?.environments ?? []).filter((e) => !e.at));
const verdict = computed(() => {
  if (failed.value) return `No: ${quantity(failed.value, 'blocker')} open.`;
  const open = all.value.length + unseen.value.length;
  return open
    ? `Not sure: ${quantity(open, 'thing')} still to be looked at.`
    : 'Yes, as far as it was looked at: nothing stands against it.';
});
const yesText = computed(() => {
  const yes = stand.value?.yes;
  if (!yes) return 'The client has not said yes to anything yet.';
  const said = `${yes.by} said yes to ${yes.environment}, ${moment(yes.at)}`;
  if (yes.outcome === 'failed') return `${said}; the content has changed since.`;
  return yes.outcome === 'passed' ? `${said}, and it is still what was shown.` : `${said}.`;
});
</script>

<template>
  <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  <div v-else-if="stand" class="stand">
    <p class="verdict" :class="{ fray: failed }">{{ verdict }}</p>
    <p>{{ yesText }}</p>
    <section v-for="e in stand.environments" :key="e.id">
      <h3>
        {{ e.name }} <span class="faint">{{ e.at ? `looked at ${ago(e.at)}` : 'never looked at' }}</span>
      </h3>
      <p v-if="e.at && !e.against.length" class="faint">No blocker is open.</p>
      <ul>
        <li v-for="a in e.against" :key="a.check">
          <OutcomeMark :stitch="a.outcome" wordless />
          <NuxtLink :to="`/sites/${siteId}?environment=${e.id}&check=${a.check}`">{{ a.title }}</NuxtLink>
          <span class="faint"
            >{{ OUTCOME_WORDS[a.outcome] }}<template v-if="a.found">: {{ a.found }}</template></span
          >
        </li>
      </ul>
    </section>
  </div>
  <v-progress-linear v-else indeterminate color="primary" aria-label="Loading" />
</template>

<style scoped>
.stand {
  display: grid;
  gap: 6px;
}
p {
  margin: 0;
}
.verdict {
  font-size: 16px;
  font-weight: 650;
}
h3 {
  font-size: 14px;
  margin: 6px 0 2px;
}
h3 span {
  font-weight: 400;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 4px;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: baseline;
  overflow-wrap: anywhere;
}
</style>
