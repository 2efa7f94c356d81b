<script setup lang="ts">
/** Registrar, DNS operator and host of a practice site: what its owner would do there at a launch. */
const props = defineProps<{
  slug: string;
  faults: { environment: 'live' | 'staging'; id: string; on: boolean }[];
}>();
const notes = useNotes();
const { data: desk, fault } = useApiQuery('/api/practice-desk', {
  key: () => ['practice-net', 'desk', props.slug],
  query: () => ({ site: props.slug }),
});
const zone = ref('');
watch(
  () => desk.value?.zone,
  (read) => {
    if (read !== undefined) zone.value = read;
  },
  { immediate: true },
);
const {
  run: change,
  busy,
  fault: unchanged,
} = useAction(
  async (what: Record<string, unknown>, said: string) => {
    await api('/api/practice-desk', { method: 'POST', body: { site: props.slug, change: what } });
    notes.say(said);
  },
  { inPlace: true },
);
const { run: turn } = useAction(async (id: string, on: boolean, said: string) => {
  await api('/api/practice-net', {
    method: 'POST',
    body: { site: props.slug, environment: 'live', fault: id, on },
  });
  notes.say(said);
});
/** Whether it can be set as the site stands: caches and publishing are of a site that is open. */
const isThere = (id: string): boolean => props.faults.some((f) => f.environment === 'live' && f.id === id);
const isOn = (id: string): boolean =>
  props.faults.some((f) => f.environment === 'live' && f.id === id && f.on);
const RATES = [
  { value: 1, title: 'real time' },
  { value: 60, title: 'an hour in a minute' },
  { value: 360, title: 'six hours in a minute' },
  { value: 2880, title: 'two days in a minute' },
];
const { data: clock } = useApiQuery('/api/clock', { key: ['clock'] });
const { run: setRate } = useAction((rate: number) =>
  api('/api/practice-clock', { method: 'POST', body: { rate } }),
);
</script>

<template>
  <section class="sheet desk" aria-label="Registrar, DNS operator and host">
    <div class="line">
      <h2>Registrar, DNS operator and host</h2>
      <span class="spring" />
      <v-select
        :model-value="clock?.rate ?? 1"
        :items="RATES"
        label="The clock"
        density="compact"
        hide-details
        class="clock"
        @update:model-value="setRate($event)"
      />
    </div>
    <p v-if="fault || unchanged" class="fray" role="alert">{{ unchanged || fault }}</p>
    <template v-if="desk">
      <div class="cols">
        <div>
          <h3>Registrar</h3>
          <v-switch
            :model-value="!isOn('unlocked-domain')"
            label="Transfer lock"
            hide-details
            @update:model-value="turn('unlocked-domain', !$event, 'Set at the registrar.')"
          />
          <v-switch
            :model-value="!isOn('on-hold')"
            label="The hold is lifted"
            hide-details
            @update:model-value="turn('on-hold', !$event, 'Set at the registrar.')"
          />
          <v-switch
            :model-value="desk.isMoved"
            label="The new name servers are set"
            hide-details
            @update:model-value="change({ isMoved: Boolean($event) }, 'Set at the registrar.')"
          />
        </div>
        <div>
          <h3>Host</h3>
          <v-switch
            :model-value="desk.hostTold"
            label="The host is told the domain"
            hide-details
            @update:model-value="change({ hostTold: Boolean($event) }, 'Set at the host.')"
          />
          <v-switch
            :model-value="desk.holdingUp"
            label="The holding page is up"
            hide-details
            @update:model-value="change({ holdingUp: Boolean($event) }, 'Set at the host.')"
          />
          <v-switch
            v-if="isThere('publish-behind')"
            :model-value="!isOn('publish-behind')"
            label="The last change is published"
            hide-details
            @update:model-value="turn('publish-behind', !$event, 'Set at the host.')"
          />
          <v-switch
            v-if="isThere('old-copy')"
            :model-value="!isOn('old-copy')"
            label="The cache is empty"
            hide-details
            @update:model-value="turn('old-copy', !$event, 'Set at the host.')"
          />
        </div>
        <div>
          <h3>How they behave</h3>
          <v-switch
            :model-value="desk.refuses"
            label="The operator refuses changes"
            hide-details
            @update:model-value="change({ refuses: Boolean($event) }, 'From now on.')"
          />
          <v-text-field
            :model-value="desk.slowMinutes"
            type="number"
            label="The operator is slow: minutes"
            hide-details
            @change="change({ slowMinutes: Number($event.target.value) }, 'From now on.')"
          />
          <v-text-field
            :model-value="desk.lagMinutes"
            type="number"
            label="The second server lags: minutes"
            hide-details
            @change="change({ lagMinutes: Number($event.target.value) }, 'From now on.')"
          />
        </div>
      </div>
      <h3>DNS operator: the zone</h3>
      <v-textarea
        v-model="zone"
        aria-label="The zone"
        rows="9"
        class="mono"
        hide-details
        spellcheck="false"
      />
      <div class="line">
        <v-btn
          size="small"
          color="primary"
          variant="flat"
          :loading="busy"
          :disabled="zone === desk.zone"
          @click="change({ zone }, 'The zone is saved.')"
          >Save the zone</v-btn
        >
        <v-btn size="small" @click="zone = zone.replace(/^(\S+) \d+ IN (A|AAAA|CNAME) /gm, '$1 300 IN $2 ')"
          >Lower the TTLs to 300</v-btn
        >
      </div>
    </template>
  </section>
</template>

<style scoped>
.desk {
  padding: 12px 16px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}
.line {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  align-items: center;
}
.clock {
  max-width: 240px;
  min-width: 200px;
}
.cols {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 6px 20px;
}
.cols > div {
  display: grid;
  gap: 6px;
  align-content: start;
}
h3 {
  font-size: 14px;
  margin: 0;
}
p {
  margin: 0;
}
@media (max-width: 800px) {
  .cols {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
