<script setup lang="ts">
import { REPORT_LANGUAGES, REPORT_PARTS } from '#core/report/setup';
import { reportTexts } from '#core/report/texts/index';
import type { Answer } from '~/composables/api';

/** With what every report begins: the agency’s name, logo, colour, letter. */
useHead({ title: 'Report template – Armband' });
const session = useSession();
const notes = useNotes();
const { data: template, fault: unread } = useApiQuery('/api/report-template', { key: ['report-template'] });
const draft = ref<Omit<Answer<'/api/report-template'>, 'hasLogo'>>();
const state = (): string => JSON.stringify(draft.value);
const clean = ref('');
watch(
  template,
  (read) => {
    if (!read || (draft.value && state() !== clean.value)) return;
    const { hasLogo: _, ...rest } = read;
    draft.value = { ...rest, parts: [...rest.parts] };
    clean.value = state();
  },
  { immediate: true },
);
const mayChange = computed(() => session.me?.owner ?? false);
const {
  run: save,
  busy,
  fault: unsaved,
} = useAction(
  async () => {
    await api('/api/report-template', { method: 'PUT', body: draft.value });
    clean.value = state();
    notes.say('Reports that are put together from now on begin like this.');
  },
  { inPlace: true },
);
/** Raised when the logo changes, so that the new one is asked for. */
const logoVersion = ref(0);
const { run: setLogo, fault: noLogo } = useAction(
  async (file: File | null) => {
    if (file) await api('/api/report-template/logo', { method: 'POST', file });
    else await api('/api/report-template/logo', { method: 'DELETE', body: {} });
    logoVersion.value++;
  },
  { inPlace: true },
);
const languages = REPORT_LANGUAGES.map((value) => ({ value, title: reportTexts(value).name }));
const parts = REPORT_PARTS.map((value) => ({ value, title: reportTexts('en').parts[value] }));
</script>

<template>
  <div class="page narrow">
    <div class="page-head"><h1>Report template</h1></div>
    <p v-if="unread" class="fray" role="alert">{{ unread }}</p>
    <form v-if="draft && template" class="sheet form" @submit.prevent="save()">
      <p class="faint">
        Reports to clients begin like this; for each site anything can be changed.
        <template v-if="!mayChange">Only an owner of this account may change it.</template>
      </p>
      <v-text-field v-model="draft.name" label="Name of the agency" :readonly="!mayChange" />
      <div class="line">
        <label class="colour"
          >Colour <input v-model="draft.colour" type="color" :disabled="!mayChange" />
          <span class="mono">{{ draft.colour }}</span></label
        >
        <span class="spring" />
        <img
          v-if="template.hasLogo"
          :src="`/api/report-template/logo?v=${logoVersion}`"
          alt="Logo"
          class="logo"
        />
        <span v-else class="faint">no logo</span>
        <template v-if="mayChange">
          <FilePick label="Choose a logo" accept=".png,.jpg,.jpeg,.webp,.gif" @chosen="setLogo($event)" />
          <v-btn v-if="template.hasLogo" size="small" variant="text" @click="setLogo(null)">Remove</v-btn>
        </template>
      </div>
      <p v-if="noLogo" class="fray" role="alert">{{ noLogo }}</p>
      <v-select v-model="draft.language" :items="languages" label="Language" :readonly="!mayChange" />
      <v-select v-model="draft.parts" :items="parts" label="Parts" multiple chips :readonly="!mayChange" />
      <v-textarea
        v-model="draft.letter"
        label="Letter"
        rows="6"
        auto-grow
        hint="{site} and {client} stand for the names."
        persistent-hint
        :readonly="!mayChange"
      />
      <v-text-field v-model="draft.signedBy" label="Signed by" :readonly="!mayChange" />
      <v-checkbox
        v-model="draft.smallToo"
        label="List minor findings too"
        :readonly="!mayChange"
        hide-details
      />
      <p v-if="unsaved" class="fray" role="alert">{{ unsaved }}</p>
      <v-btn
        v-if="mayChange"
        type="submit"
        color="primary"
        variant="flat"
        :loading="busy"
        :disabled="state() === clean"
        >Save</v-btn
      >
    </form>
    <v-progress-linear v-else-if="!unread" indeterminate color="primary" aria-label="Loading" />
  </div>
</template>

<style scoped>
.narrow {
  max-width: 760px;
}
.form {
  padding: 16px;
  display: grid;
  gap: 12px;
  justify-items: start;
}
.form > * {
  width: 100%;
}
.form > .v-btn {
  width: auto;
}
p {
  margin: 0;
}
.line {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
}
.colour {
  display: flex;
  gap: 8px;
  align-items: center;
}
.logo {
  max-height: 40px;
  max-width: 200px;
}
</style>
