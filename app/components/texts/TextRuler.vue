<script setup lang="ts">
import { mdiContentCut } from '@mdi/js';
import type { TextField } from '#core/checks/kit/default-texts';
import { concernsOf, type TakenText, type Wanted } from '#core/intended/concerns';
import { isMeasured, PHONE, rulerOf, standing } from '#core/intended/ruler';
import type { TextRoom } from '#core/pages/fit';
import { foldSpace } from '#core/text/fold';
import { TEXT_LIMITS } from '#core/facts/intended-text';

/** One text while it is written: where a listing cuts it, and what is wrong with it. */
const props = defineProps<{
  field: TextField;
  path: string;
  live: string;
  room: TextRoom;
  taken: TakenText;
  wanted: Wanted;
}>();
const text = defineModel<string>({ required: true });
const LABELS: Record<TextField, string> = { title: 'Title', description: 'Description' };
const folded = computed(() => foldSpace(text.value));
const rulers = computed(() => [
  { on: 'desktop', ...rulerOf(folded.value, props.room.width, props.room.size) },
  { on: 'phone', ...rulerOf(folded.value, PHONE[props.field].width, PHONE[props.field].size) },
]);
const stands = computed(() => standing(folded.value, props.room));
const concerns = computed(() => (folded.value ? concernsOf(props.field, folded.value, props) : []));
const isEstimate = computed(() => !isMeasured(folded.value));
</script>

<template>
  <section :aria-label="LABELS[field]">
    <v-textarea
      v-model="text"
      :label="LABELS[field]"
      rows="1"
      auto-grow
      :maxlength="TEXT_LIMITS[field]"
      hide-details
      spellcheck="true"
    />
    <p class="stands" role="status">
      <b :class="{ fray: !stands.isGood }">{{ stands.words }}</b>
      <span v-if="isEstimate && folded" class="faint">
        · the width is an estimate: no table has these letters</span
      >
    </p>
    <p
      v-for="r in rulers"
      :key="r.on"
      class="ruler"
      :style="{ fontSize: field === 'title' ? '15px' : '14px' }"
    >
      <span class="faint on">{{ r.on }}</span><span class="line"
        ><span class="ink">{{ r.shown }}</span
        ><template v-if="r.cut"
          ><span class="scissors"><v-icon :icon="mdiContentCut" size="12" /></span
          ><span class="faint">{{ r.cut }}</span></template
        ></span
      ><span class="num faint px">{{ r.px }} px</span>
    </p>
    <ul class="concerns" aria-label="What it was checked for">
      <li v-for="c in concerns" :key="c.label" :class="c.fault && !c.isHint ? 'bad' : 'faint'">
        <OutcomeMark :stitch="!c.fault ? 'passed' : c.isHint ? 'inapplicable' : 'failed'" wordless />
        {{ c.fault ?? c.label }}
      </li>
    </ul>
    <p v-if="live !== folded" class="faint live"><span class="on">live now</span>{{ live || 'nothing' }}</p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 6px;
}
p {
  margin: 0;
}
.ruler {
  display: grid;
  grid-template-columns: 62px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: baseline;
  line-height: 1.35;
}
.line {
  overflow-wrap: anywhere;
}
.scissors {
  border-left: 2px dashed rgb(var(--v-theme-error));
  margin: 0 3px 0 2px;
  color: rgb(var(--v-theme-error));
}
.on,
.px {
  font-size: 12px;
}
.live {
  display: grid;
  grid-template-columns: 62px minmax(0, 1fr);
  gap: 8px;
  font-size: 13px;
  align-items: baseline;
}
.concerns {
  list-style: none;
  padding: 0;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  font-size: 13px;
}
.bad {
  font-weight: 600;
}
</style>
