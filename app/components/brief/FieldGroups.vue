<script setup lang="ts">
import type { Draft, FieldGroup, FieldKind, FieldSpec } from '#core/entry/field-text';

/**
 * A form in sections from a description of its fields. Faults show at fields that were left, or everywhere
 * once asked.
 */
const props = defineProps<{
  groups: readonly FieldGroup[];
  faults: Record<string, string[]>;
  all?: boolean;
}>();
const draft = defineModel<Draft>({ required: true });
/** Reasons why a field is blank on purpose; given only where fields may be. */
const reasons = defineModel<Record<string, string> | undefined>('reasons');
const touched = ref(new Set<string>());
const LONG: ReadonlySet<FieldKind> = new Set([
  'long',
  'lines',
  'records',
  'tokens',
  'moves',
  'colours',
  'scripts',
  'plans',
]);
const CODE: ReadonlySet<FieldKind> = new Set(['records', 'tokens', 'scripts']);
const top = (f: FieldSpec): string => f.field.split('.')[0]!;
const errors = (f: FieldSpec): string[] =>
  props.all || touched.value.has(f.field) ? (props.faults[f.field] ?? []) : [];
const mayBeNone = (f: FieldSpec): boolean =>
  reasons.value !== undefined && !f.field.includes('.') && !draft.value[f.field]?.trim();
const none = (f: FieldSpec): boolean => !f.field.includes('.') && reasons.value?.[top(f)] !== undefined;
const set = (f: FieldSpec, text: string | null): void => {
  draft.value = { ...draft.value, [f.field]: text ?? '' };
};
function reason(f: FieldSpec, text: string | null): void {
  const { [top(f)]: _gone, ...rest } = reasons.value ?? {};
  reasons.value = text === null ? rest : { ...rest, [top(f)]: text };
  if (text === '') void nextTick(() => document.getElementById(`reason-${f.field}`)?.focus());
}
</script>

<template>
  <fieldset v-for="g in groups" :key="g.title">
    <legend>{{ g.title }}</legend>
    <div class="fields">
      <div
        v-for="f in g.fields"
        :id="`field-${f.field}`"
        :key="f.field"
        :class="{ wide: f.wide, code: CODE.has(f.kind) }"
        @focusout="touched.add(f.field)"
      >
        <v-text-field
          v-if="none(f)"
          :id="`reason-${f.field}`"
          :model-value="reasons![top(f)]"
          :label="`${f.label}: none wanted, because`"
          class="none"
          clearable
          :error-messages="
            (reasons![top(f)] ?? '').trim().length < 3 && touched.has(f.field)
              ? ['give a reason of at least three letters']
              : []
          "
          @update:model-value="reason(f, $event ?? '')"
          @click:clear="reason(f, null)"
        />
        <v-select
          v-else-if="f.kind === 'choice'"
          :model-value="draft[f.field] ?? ''"
          :label="f.label"
          :items="[...(f.choices ?? [])]"
          :hint="f.hint"
          :error-messages="errors(f)"
          @update:model-value="set(f, $event)"
        />
        <v-textarea
          v-else-if="LONG.has(f.kind)"
          :model-value="draft[f.field] ?? ''"
          :label="f.label"
          :placeholder="f.placeholder"
          :hint="f.hint"
          persistent-placeholder
          rows="2"
          max-rows="14"
          auto-grow
          :error-messages="errors(f)"
          @update:model-value="set(f, $event)"
        >
          <template v-if="mayBeNone(f)" #append-inner>
            <NoneWanted :field="f.label" @say="reason(f, '')" />
          </template>
        </v-textarea>
        <v-text-field
          v-else
          :model-value="draft[f.field] ?? ''"
          :label="f.label"
          :placeholder="f.placeholder"
          :hint="f.hint"
          :inputmode="f.kind === 'number' ? 'numeric' : undefined"
          persistent-placeholder
          :error-messages="errors(f)"
          @update:model-value="set(f, $event)"
        >
          <template v-if="mayBeNone(f)" #append-inner>
            <NoneWanted :field="f.label" @say="reason(f, '')" />
          </template>
        </v-text-field>
      </div>
    </div>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding: 14px 0 6px;
  margin: 0;
  min-width: 0;
}
legend {
  font-weight: 650;
  font-size: 15px;
  padding-right: 12px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 16px;
}
.fields > * {
  min-width: 0;
}
.wide {
  grid-column: 1 / -1;
}
.code :deep(textarea) {
  font-family: var(--mono);
  font-size: 12px !important;
  line-height: 1.6;
}
.none :deep(.v-field) {
  background: rgb(var(--v-theme-background));
}
.none :deep(input) {
  font-style: italic;
}
@media (max-width: 700px) {
  .fields {
    grid-template-columns: 1fr;
  }
}
</style>
