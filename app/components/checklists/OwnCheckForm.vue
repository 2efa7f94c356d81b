<script setup lang="ts">
import { TITLE_LENGTH } from '#core/facts/heading';
import { inWords } from '#core/checks/engine/own-check';
import { selectorFault } from '#core/extract/selected';
import { RECORD_TYPES } from '#core/facts/brief';
import { BARE, type Comparison, type Look, type OwnCheck, type OwnTest } from '#core/facts/checklist';
import { SITUATIONS, SITUATION_WORDS, type Situation } from '#core/facts/situation';

/** A check of the agency's own: manual, or one building block; no code. */
const own = defineModel<OwnCheck>({ required: true });
defineProps<{ disabled?: boolean }>();
const LOOKS: { value: Look | 'hand'; title: string }[] = [
  { value: 'hand', title: 'manual: a person attests it' },
  { value: 'element', title: 'an element of the page' },
  { value: 'header', title: 'a header of the answer' },
  { value: 'text', title: 'a text on the page' },
  { value: 'record', title: 'a DNS record' },
  { value: 'status', title: 'the status of a path' },
];
const WORDS: Record<Comparison, string> = {
  there: 'is there',
  missing: 'is not there',
  equals: 'equals',
  differs: 'does not equal',
  contains: 'contains',
  matches: 'matches (* for anything)',
};
const AT: Record<Look, { label: string; placeholder: string }> = {
  element: { label: 'CSS selector', placeholder: 'footer a[href^="/imprint"]' },
  header: { label: 'Header', placeholder: 'Permissions-Policy' },
  record: { label: 'Name, {domain} and {host} are filled in', placeholder: '_note.{domain}' },
  status: { label: 'Path', placeholder: '/imprint/' },
  text: { label: '', placeholder: '' },
};
const look = computed<Look | 'hand'>(() => own.value.test?.look ?? 'hand');
function set(change: Partial<OwnCheck>): void {
  own.value = { ...own.value, ...change };
}
function setTest(change: Partial<OwnTest>): void {
  own.value = { ...own.value, test: { ...own.value.test!, ...change } };
}
function choose(to: Look | 'hand'): void {
  if (to === 'hand') {
    const { test: _gone, ...rest } = own.value;
    own.value = rest;
    return;
  }
  own.value = {
    ...own.value,
    test: {
      look: to,
      is: to === 'status' ? 'equals' : 'there',
      ...(to === 'status' ? { value: '200' } : {}),
      ...(to === 'record' ? { type: 'TXT' } : {}),
      ...(to === 'element' || to === 'header' || to === 'text' ? { on: 'pages' as const } : {}),
    },
  };
}
const comparisons = computed(() =>
  (Object.keys(WORDS) as Comparison[])
    .filter((c) =>
      look.value === 'text' ? BARE.has(c) : look.value === 'status' ? !BARE.has(c) && c !== 'contains' : true,
    )
    .map((value) => ({ value, title: WORDS[value] })),
);
/** What is wrong with the selector while it is typed. */
const selectorWrong = computed(() => {
  const { look: at, at: text } = own.value.test ?? {};
  return at === 'element' && text ? (selectorFault(text) ?? '') : '';
});
function situation(s: Situation, on: boolean): void {
  set({ situations: SITUATIONS.filter((x) => (x === s ? on : own.value.situations.includes(x))) });
}
</script>

<template>
  <div class="own">
    <v-text-field
      :model-value="own.title"
      label="Title: what must be so"
      :disabled="disabled"
      class="wide"
      @update:model-value="set({ title: $event })"
    />
    <v-text-field
      :model-value="own.fault ?? ''"
      label="Fault: what is wrong when it failed"
      :placeholder="`Not met: ${own.title}`"
      persistent-placeholder
      :maxlength="TITLE_LENGTH"
      :disabled="disabled"
      class="wide"
      @update:model-value="set({ fault: $event || undefined })"
    />
    <v-select
      :model-value="look"
      label="It looks at"
      :items="LOOKS"
      :disabled="disabled"
      @update:model-value="choose($event)"
    />
    <template v-if="own.test">
      <v-text-field
        v-if="own.test.look !== 'text'"
        :model-value="own.test.at ?? ''"
        :label="AT[own.test.look].label"
        :placeholder="AT[own.test.look].placeholder"
        :error-messages="selectorWrong"
        persistent-placeholder
        :disabled="disabled"
        class="code"
        @update:model-value="setTest({ at: $event.trim() || undefined })"
      />
      <v-text-field
        v-if="own.test.look === 'element'"
        :model-value="own.test.attribute ?? ''"
        label="Attribute (blank: its text)"
        :disabled="disabled"
        class="code"
        @update:model-value="setTest({ attribute: $event.trim() || undefined })"
      />
      <v-select
        v-if="own.test.look === 'record'"
        :model-value="own.test.type ?? 'TXT'"
        label="Type"
        :items="[...RECORD_TYPES]"
        :disabled="disabled"
        @update:model-value="setTest({ type: $event })"
      />
      <v-select
        :model-value="own.test.is"
        label="It"
        :items="comparisons"
        :disabled="disabled"
        @update:model-value="setTest({ is: $event })"
      />
      <v-text-field
        v-if="own.test.look === 'text' || !BARE.has(own.test.is)"
        :model-value="own.test.value ?? ''"
        :label="own.test.look === 'text' ? 'The text' : 'Value'"
        :disabled="disabled"
        class="code"
        @update:model-value="setTest({ value: $event || undefined })"
      />
      <v-select
        v-if="own.test.on"
        :model-value="own.test.on"
        label="Where"
        :items="[
          { value: 'pages', title: 'on every page' },
          { value: 'home', title: 'on the home page' },
        ]"
        :disabled="disabled"
        @update:model-value="setTest({ on: $event })"
      />
    </template>
    <v-text-field
      v-else
      :model-value="own.goodForDays ? String(own.goodForDays) : ''"
      label="An attestation is good for days"
      inputmode="numeric"
      :disabled="disabled"
      @update:model-value="set({ goodForDays: Number($event) || undefined })"
    />
    <v-textarea
      :model-value="own.why ?? ''"
      label="Why it matters"
      rows="1"
      auto-grow
      :disabled="disabled"
      class="wide"
      @update:model-value="set({ why: $event || undefined })"
    />
    <v-textarea
      :model-value="own.steps ?? ''"
      :label="own.test ? 'What to do about it' : 'How to do it'"
      rows="1"
      auto-grow
      :disabled="disabled"
      class="wide"
      @update:model-value="set({ steps: $event || undefined })"
    />
    <div class="wide situations" role="group" aria-label="Situations">
      <span class="faint">Asked in</span
      ><v-checkbox
        v-for="s in SITUATIONS"
        :key="s"
        :model-value="own.situations.includes(s)"
        :label="SITUATION_WORDS[s]"
        :disabled="disabled"
        @update:model-value="situation(s, Boolean($event))"
      />
    </div>
    <p v-if="own.test" class="wide faint">In words: {{ inWords(own.test) }}</p>
  </div>
</template>

<style scoped>
.own {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 12px;
}
.wide {
  grid-column: 1 / -1;
}
.situations {
  display: flex;
  gap: 4px 14px;
  align-items: center;
  flex-wrap: wrap;
}
.code :deep(input) {
  font-family: var(--mono);
  font-size: 12px !important;
}
@media (max-width: 800px) {
  .own {
    grid-template-columns: 1fr;
  }
}
</style>
