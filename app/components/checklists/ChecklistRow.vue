<script setup lang="ts">
import { mdiDeleteOutline, mdiDragVertical } from '@mdi/js';
import { SEVERITY_WEIGHT, type Severity } from '#core/facts/finding';
import { SITUATION_WORDS } from '#core/facts/situation';
import type { ChecklistDraftRow } from '~/composables/checklist-draft';

/** One line of the composer; open, it shows its words, limits and source. */
const row = defineModel<ChecklistDraftRow>({ required: true });
const props = defineProps<{ open: boolean; faults: string[]; disabled?: boolean }>();
const emit = defineEmits<{ toggle: []; move: [by: number]; remove: [] }>();
const SEVERITIES: Severity[] = ['blocker', 'major', 'minor'];
function set(change: Partial<ChecklistDraftRow>): void {
  row.value = { ...row.value, ...change };
}
const changed = computed(
  () =>
    row.value.severity !== row.value.catalogueSeverity ||
    row.value.weight !== '' ||
    row.value.note !== '' ||
    row.value.title !== '' ||
    Object.values(row.value.parameters).some(Boolean),
);
const limits = computed(() =>
  Object.entries(row.value.specs).map(([k, s]) => ({
    value: `${row.value.parameters[k] || s.default} ${s.unit}`,
    meaning: s.meaning,
  })),
);
const value = (e: Event): string => (e.target as HTMLInputElement).value;
function keys(e: KeyboardEvent): void {
  if (e.altKey && (e.key === 'ArrowUp' || e.key === 'ArrowDown') && !props.disabled) {
    e.preventDefault();
    emit('move', e.key === 'ArrowUp' ? -1 : 1);
  }
}
</script>

<template>
  <div class="item" :class="{ off: !row.on, open }" :data-check="row.id">
    <div class="line">
      <span
        class="grip"
        tabindex="0"
        role="button"
        :aria-label="`Move ${row.title || row.catalogueTitle}: drag, or Alt with an arrow`"
        :title="disabled ? '' : 'Drag to order, or Alt with an arrow'"
        @keydown="keys"
        ><v-icon :icon="mdiDragVertical" size="16"
      /></span>
      <input
        type="checkbox"
        :checked="row.on"
        :disabled="disabled"
        :aria-label="`Ask: ${row.title || row.catalogueTitle}`"
        @change="set({ on: ($event.target as HTMLInputElement).checked })"
      />
      <button type="button" class="title" :aria-expanded="open" @click="emit('toggle')">
        <span class="cut">{{ row.title || row.catalogueTitle }}</span><span v-if="row.own" class="tag"
          >own</span
        ><span v-if="row.byHand" class="tag">manual</span
        ><span v-if="changed" class="tag strong">changed</span>
      </button>
      <select
        :value="row.severity"
        :disabled="disabled || !row.on"
        aria-label="Severity"
        :class="{ differs: row.severity !== row.catalogueSeverity }"
        @change="
          set({
            severity: value($event) as Severity,
            ...(row.own
              ? {
                  own: { ...row.own, severity: value($event) as Severity },
                  catalogueSeverity: value($event) as Severity,
                }
              : {}),
          })
        "
      >
        <option v-for="s in SEVERITIES" :key="s" :value="s">{{ s }}</option>
      </select>
      <input
        type="text"
        inputmode="decimal"
        class="num weight"
        :value="row.weight"
        :placeholder="String(SEVERITY_WEIGHT[row.severity])"
        :disabled="disabled || !row.on"
        aria-label="Weight"
        @input="set({ weight: value($event) })"
      />
      <span class="faint cut limits" :title="limits.map((l) => `${l.value}: ${l.meaning}`).join('\n')">{{
        limits.map((l) => l.value).join(', ')
      }}</span>
    </div>
    <p v-for="f in faults" :key="f" class="fray fault" role="alert">{{ f }}</p>
    <div v-if="open" class="more">
      <OwnCheckForm
        v-if="row.own"
        :model-value="row.own"
        :disabled="disabled"
        @update:model-value="
          set({
            own: $event,
            catalogueTitle: $event.title,
            situations: $event.situations,
            byHand: !$event.test,
          })
        "
      />
      <template v-else>
        <p>{{ row.why }}</p>
        <div class="grid">
          <v-text-field
            :model-value="row.title"
            label="Own title"
            :placeholder="row.catalogueTitle"
            persistent-placeholder
            :disabled="disabled"
            class="wide"
            @update:model-value="set({ title: $event })"
          />
          <v-text-field
            v-for="(s, k) in row.specs"
            :key="k"
            :model-value="row.parameters[k]"
            :label="`${s.meaning}, ${s.unit}`"
            :placeholder="String(s.default)"
            persistent-placeholder
            :hint="`${s.min} to ${s.max}`"
            persistent-hint
            :disabled="disabled"
            @update:model-value="set({ parameters: { ...row.parameters, [k]: $event } })"
          />
        </div>
      </template>
      <v-textarea
        :model-value="row.note"
        label="Own note, shown beside the finding"
        rows="1"
        auto-grow
        :disabled="disabled"
        @update:model-value="set({ note: $event })"
      />
      <p class="faint small">
        <code>{{ row.id }}</code> · asked in {{ row.situations.map((s) => SITUATION_WORDS[s]).join(', ') }} ·
        rests on: {{ row.source }}
        <v-btn
          v-if="row.own && !disabled"
          size="small"
          variant="text"
          :prepend-icon="mdiDeleteOutline"
          @click="emit('remove')"
          >Delete this check</v-btn
        >
      </p>
    </div>
  </div>
</template>

<style scoped>
.item {
  border-top: 1px solid rgb(var(--v-theme-rule));
}
.item.open {
  background: rgb(var(--v-theme-primary), 0.05);
}
.line {
  display: grid;
  grid-template-columns: 20px 18px minmax(0, 1fr) 92px 56px minmax(60px, 170px);
  gap: 10px;
  align-items: center;
  min-height: 34px;
  padding: 0 12px 0 6px;
}
.off .title {
  color: rgb(var(--v-theme-faint));
}
.grip {
  cursor: grab;
  color: rgb(var(--v-theme-faint));
  line-height: 1;
}
.title {
  display: flex;
  gap: 8px;
  align-items: baseline;
  text-align: left;
  min-width: 0;
}
.title:hover .cut {
  text-decoration: underline;
}
.tag {
  font-size: 12px;
  color: rgb(var(--v-theme-faint));
  white-space: nowrap;
}
.tag.strong {
  color: rgb(var(--v-theme-primary));
  font-weight: 600;
}
select,
input[type='text'] {
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: 4px;
  padding: 3px 6px;
  background: rgb(var(--v-theme-surface));
  color: inherit;
  font: inherit;
  width: 100%;
}
select.differs {
  border-color: rgb(var(--v-theme-primary));
  font-weight: 600;
}
select:disabled,
input:disabled {
  opacity: 0.5;
}
.weight {
  text-align: right;
}
input[type='checkbox'] {
  accent-color: rgb(var(--v-theme-primary));
  width: 15px;
  height: 15px;
}
.limits {
  font-size: 13px;
}
.more {
  padding: 6px 16px 14px 44px;
  display: grid;
  gap: 12px;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.wide {
  grid-column: 1 / -1;
}
.small {
  font-size: 13px;
}
.fault {
  padding: 0 12px 6px 54px;
}
@media (max-width: 700px) {
  .line {
    grid-template-columns: 20px 18px minmax(0, 1fr) 84px;
  }
  .weight,
  .limits {
    display: none;
  }
  .grid {
    grid-template-columns: 1fr;
  }
  .more {
    padding-left: 16px;
  }
}
</style>
