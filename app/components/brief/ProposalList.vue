<script setup lang="ts">
import { briefLabel } from '#core/entry/brief-fields';
import type { Proposal, Confidence } from '#core/proposals/propose-brief';

/** What was read from a site, each with the place it was read from, to be taken one by one. */
const props = defineProps<{ proposals: Proposal[]; from: string }>();
const emit = defineEmits<{ adopt: [proposal: Proposal]; close: [] }>();
const SURE: Record<Confidence, string> = {
  sure: 'sure',
  likely: 'likely',
  guess: 'a guess, look twice',
};
const left = ref([...props.proposals]);
watch(
  () => props.proposals,
  (list) => {
    left.value = [...list];
  },
);
function adopt(p: Proposal): void {
  emit('adopt', p);
  left.value = left.value.filter((x) => x !== p);
  if (!left.value.length) emit('close');
}
</script>

<template>
  <section class="proposals" aria-label="Read from the site">
    <div class="page-head">
      <h2 class="cut">Read from {{ from }}</h2>
      <span class="faint">Confirm each, or leave it.</span><span class="spring" /><v-btn
        size="small"
        @click="[...left].forEach(adopt)"
        >Use all</v-btn
      ><v-btn size="small" variant="text" @click="emit('close')">Leave the rest</v-btn>
    </div>
    <div v-for="p in left" :key="p.field" class="proposal">
      <span class="faint">{{ briefLabel(p.field) }}</span><span class="value"
        ><span
          ><b>{{ p.shown }}</b
          ><span class="faint sure">{{ SURE[p.sure] }}</span></span
        ><code class="faint from">{{ p.from }}</code></span
      ><v-btn size="small" color="primary" :aria-label="`Use ${briefLabel(p.field)}`" @click="adopt(p)"
        >Use</v-btn
      >
    </div>
  </section>
</template>

<style scoped>
.proposals {
  border: 1px solid rgb(var(--v-theme-primary));
  border-radius: 4px;
  padding: 10px 12px;
  display: grid;
  gap: 4px;
}
.page-head {
  margin: 0;
}
.proposal {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid rgb(var(--v-theme-rule));
}
.value {
  display: flex;
  flex-direction: column;
  min-width: 0;
  overflow-wrap: anywhere;
}
.sure {
  margin-left: 10px;
}
.from {
  font-size: 11px;
}
@media (max-width: 700px) {
  .proposal {
    grid-template-columns: 1fr auto;
  }
  .proposal > :first-child {
    grid-column: 1 / -1;
  }
}
</style>
