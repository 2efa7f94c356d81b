<script setup lang="ts">
import type { Answer } from '~/composables/api';

type PracticeSite = Answer<'/api/practice-net'>['sites'][number];

useHead({ title: 'Practice net – Armband' });
const notes = useNotes();
const slug = ref('');
const words = ref('');
const { data: net, fault } = useApiQuery('/api/practice-net', { key: ['practice-net'] });
const sites = computed(() => net.value?.sites);
watch(sites, (list) => (slug.value ||= list?.[0]?.slug ?? ''), { immediate: true });
const site = computed(() => sites.value?.find((s) => s.slug === slug.value));
const groups = computed(() =>
  (['live', 'staging'] as const).map((environment) => ({
    environment,
    url: environment === 'live' ? site.value?.liveUrl : site.value?.stagingUrl,
    faults: (site.value?.faults ?? [])
      .filter(
        (f) =>
          f.environment === environment &&
          `${f.title} ${f.check}`.toLowerCase().includes(words.value.toLowerCase()),
      )
      .sort((a, b) => Number(b.on) - Number(a.on) || a.check.localeCompare(b.check)),
  })),
);
const { run: turn } = useAction(async (f: PracticeSite['faults'][number], on: boolean) => {
  await api('/api/practice-net', {
    method: 'POST',
    body: { site: slug.value, environment: f.environment, fault: f.id, on },
  });
  notes.say(
    on
      ? `“${f.title}” is planted. The next audit will find it.`
      : `“${f.title}” is repaired. Audit again and watch its fix.`,
  );
});
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Practice net</h1>
      <span class="faint intro"
        >Stand-in sites on this machine. Repair a fault here as their owner would, audit the site again, and
        watch the fix be verified.</span
      >
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <div v-else-if="sites" class="cols">
      <nav class="sheet sites" aria-label="Practice sites">
        <button
          v-for="s in sites"
          :key="s.slug"
          type="button"
          :class="{ on: s.slug === slug }"
          @click="slug = s.slug"
        >
          <span class="cut">{{ s.name }}</span><span class="num faint" title="planted faults">{{
            s.faults.filter((f) => f.on).length
          }}</span>
        </button>
      </nav>
      <div v-if="site" class="main">
        <div class="page-head">
          <h2>{{ site.name }}</h2>
          <span class="faint">on {{ site.host }}</span
          ><span class="spring" /><v-text-field
            v-model="words"
            placeholder="Filter faults"
            aria-label="Filter faults"
            class="filter"
            clearable
            @click:clear="words = ''"
          />
        </div>
        <PracticeDesk :key="site.slug" :slug="site.slug" :faults="site.faults" />
        <section v-for="g in groups" :key="g.environment" class="sheet">
          <div class="group">
            <h2>{{ g.environment === 'live' ? 'Live' : 'Staging' }}</h2>
            <span class="mono faint cut">{{ g.url }}</span>
          </div>
          <label v-for="f in g.faults" :key="f.id" class="fault"
            ><v-switch
              :model-value="f.on"
              :aria-label="f.title"
              @update:model-value="turn(f, Boolean($event))"
            /><span class="cut">{{ f.title }}</span
            ><code class="faint cut">{{ f.check }}</code></label
          >
          <p v-if="!g.faults.length" class="faint none">No fault matches.</p>
        </section>
      </div>
    </div>
    <v-progress-linear v-else indeterminate color="primary" aria-label="Loading" />
  </div>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: 240px minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}
.sites {
  display: grid;
  padding: 4px;
  position: sticky;
  top: 60px;
}
.sites button {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 7px 10px;
  text-align: left;
  border-radius: 4px;
}
.sites button.on {
  background: rgb(var(--v-theme-primary), 0.12);
  font-weight: 600;
}
.main {
  display: grid;
  gap: 12px;
  grid-template-columns: minmax(0, 1fr);
}
.main .page-head {
  margin: 0;
}
.filter {
  max-width: 220px;
}
.group {
  display: flex;
  gap: 12px;
  align-items: baseline;
  padding: 10px 12px 6px;
}
.fault {
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr) minmax(0, 260px);
  gap: 10px;
  align-items: center;
  min-height: 36px;
  padding: 0 12px;
  border-top: 1px solid rgb(var(--v-theme-rule));
  cursor: pointer;
}
.none {
  padding: 8px 12px;
}
@media (max-width: 700px) {
  .cols,
  .sites {
    grid-template-columns: minmax(0, 1fr);
  }
  .sites {
    position: static;
  }
  .fault {
    grid-template-columns: 48px minmax(0, 1fr);
    padding: 4px 10px;
  }
  .fault code {
    display: none;
  }
  .fault .cut {
    white-space: normal;
  }
}
</style>
