<script setup lang="ts">
import { mdiPlus } from '@mdi/js';
import { HostProfileDto } from '#core/entry/host-profile';
import { readAs } from '#core/entry/validation';
import type { HostProfile } from '#core/facts/host-profile';
import { quantity } from '#core/text/quantity';

/** The agency's notes on hosting products. */
useHead({ title: 'Host profiles – Armband' });
const notes = useNotes();
const { data: list, fault: unread } = useApiQuery('/api/host-profiles', { key: ['host-profiles'] });
const name = ref('');
const making = ref(false);
const { run: make, fault: unmade } = useAction(
  async (profile: HostProfile) => {
    const { id } = await api('/api/host-profiles', { method: 'POST', body: profile });
    await navigateTo(`/host-profiles/${id}`);
  },
  { inPlace: true },
);
const free = (wanted: string): string =>
  unusedName(
    wanted,
    (list.value ?? []).map((x) => x.name),
  );
const { run: bring, fault: unfit } = useAction(
  async (file: File) => {
    const { value, faults } = await readAs(HostProfileDto, await readJsonFile(file));
    if (faults.length)
      throw new Error(
        `${file.name}: ${faults
          .slice(0, 3)
          .map((f) => f.message)
          .join('; ')}`,
      );
    const wanted = free(value.name);
    if (wanted !== value.name) notes.say(`There is a ${value.name} already; this one is named ${wanted}.`);
    await make({ ...value, name: wanted } as HostProfile);
  },
  { inPlace: true },
);
const fault = computed(() => unread.value || unmade.value || unfit.value);
function says(p: HostProfile): string {
  return [
    p.records?.length && quantity(p.records.length, 'record'),
    p.icons?.required?.length && `icons ${p.icons.required.join(', ')} px`,
    p.stagingLifetime && `staging lapses after ${p.stagingLifetime.firstDays} days`,
    p.plans?.length && quantity(p.plans.length, 'plan'),
    p.handChecks?.length && `${p.handChecks.length} manual checks`,
  ]
    .filter(Boolean)
    .join(' · ');
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Host profiles</h1>
      <span class="faint"
        >What a hosting product imposes or leaves behind, as your own notes. Checks use them.</span
      ><span class="spring" /><FilePick
        label="From a JSON file"
        accept=".json,application/json"
        @chosen="bring"
      /><v-btn color="primary" :prepend-icon="mdiPlus" @click="making = !making">New profile</v-btn>
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <form v-if="making" class="sheet new" @submit.prevent="name.trim() && make({ name: name.trim() })">
      <v-text-field v-model="name" label="Name of the hosting product" autofocus /><v-btn
        type="submit"
        color="primary"
        variant="flat"
        :disabled="!name.trim()"
        >Make it</v-btn
      >
    </form>
    <div v-if="list?.length" class="sheet">
      <div v-for="p in list" :key="p.name" class="row">
        <NuxtLink :to="`/host-profiles/${p.id}`" class="name cut">{{ p.name }}</NuxtLink><span
          class="faint cut"
          >{{ says(p.profile) || 'nothing noted yet' }}</span
        ><span class="num">{{ quantity(p.sites, 'site') }}</span
        ><span class="faint cut">version {{ p.version }}, {{ p.savedBy ?? 'Armband' }}</span
        ><v-btn
          size="small"
          variant="text"
          :aria-label="`Copy ${p.name}`"
          @click="make({ ...p.profile, name: free(`${p.name} copy`) })"
          >Copy</v-btn
        >
      </div>
    </div>
    <div v-else-if="list" class="sheet empty">
      <p>No host profile yet. Note what a host imposes once, and every site there is checked against it.</p>
    </div>
    <v-progress-linear v-else-if="!fault" indeterminate color="primary" aria-label="Loading" />
  </div>
</template>

<style scoped>
.new {
  display: flex;
  gap: 10px;
  padding: 12px;
  margin-bottom: 12px;
  max-width: 560px;
}
.row {
  display: grid;
  grid-template-columns: minmax(150px, 0.8fr) minmax(0, 2fr) 70px minmax(120px, 0.7fr) 70px;
  gap: 14px;
  align-items: center;
  min-height: 44px;
  padding: 0 12px;
}
.row + .row {
  border-top: 1px solid rgb(var(--v-theme-rule));
}
.name {
  font-weight: 600;
  color: inherit;
  text-decoration: none;
}
.name:hover {
  text-decoration: underline;
}
@media (max-width: 800px) {
  .row {
    grid-template-columns: minmax(0, 1fr) 60px 60px;
  }
  .row > .faint {
    display: none;
  }
}
</style>
