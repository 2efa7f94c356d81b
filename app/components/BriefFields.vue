<script setup lang="ts">
import type { BriefDraft } from '~/composables/brief-draft';

/** The fields of a first brief. */
const draft = defineModel<BriefDraft>({ required: true });
</script>

<template>
  <div class="fields">
    <v-text-field v-model="draft.name" label="Name" hint="as it should stand in titles" /><v-text-field v-model="draft.tagline" label="Tagline" />
    <v-text-field v-model="draft.contactEmail" label="Public mail address" /><v-text-field v-model="draft.phone" label="Phone" placeholder="+44 1632 960101" />
    <v-text-field v-model="draft.privateEmails" label="Private mail addresses, never shown" hint="comma between" /><v-text-field v-model="draft.languages" label="Languages" placeholder="en-GB, cy" hint="language tags, comma between" />
    <v-text-field v-model="draft.preferredHost" label="Preferred host" placeholder="www.kites.example" hint="with or without www" /><v-text-field v-model="draft.otherHosts" label="Other hosts that lead there" placeholder="kites.example" hint="comma between" />
    <v-text-field v-model="draft.homeMark" label="Mark of the right home page" hint="a text on it, or #id, .class" /><v-text-field v-model="draft.requiredPages" label="Required pages" placeholder="/about/, /contact/" hint="paths, comma between" />
    <v-textarea v-model="draft.records" label="Records the host asked for, one a line" placeholder="kites.example A 192.0.2.10" rows="3" auto-grow class="wide mono" />
    <v-textarea v-model="draft.tokens" label="Ownership tokens, one a line: place kind value" placeholder="meta sallow-site-verification abc123" rows="2" auto-grow class="wide mono" />
    <v-text-field v-model="draft.analyticsIds" label="Analytics IDs" hint="comma between" class="wide" />
  </div>
</template>

<style scoped>
.fields { display: grid; grid-template-columns: 1fr 1fr; gap: 14px 16px; } .wide { grid-column: 1 / -1; } .mono { font-family: inherit; } .mono :deep(textarea) { font-family: var(--mono); font-size: 12px !important; }
@media (max-width: 700px) { .fields { grid-template-columns: 1fr; } }
</style>
