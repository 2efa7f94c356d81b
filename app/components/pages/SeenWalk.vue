<script setup lang="ts">
import { mdiChevronLeft, mdiChevronRight, mdiClose } from '@mdi/js';
import { useEventListener } from '@vueuse/core';
import { SCREENS, type Screen } from '#core/facts/rendered';
import type { SeenPage } from '~/composables/seen';

/** Pages one after the other, as a visitor of this screen sees them: the whole of each. */
const open = defineModel<boolean>({ required: true });
const at = defineModel<number>('at', { required: true });
const screen = defineModel<Screen>('screen', { required: true });
const props = defineProps<{ auditId: number; pages: readonly SeenPage[] }>();
const page = computed(() => props.pages[at.value]);
const view = computed(() => page.value?.views.find((v) => v.screen === screen.value));
const picture = computed(() => view.value?.whole ?? view.value?.first);
const width = computed(() => SCREENS[screen.value].width);
const screens = (Object.keys(SCREENS) as Screen[]).map((key) => ({ key, label: SCREEN_LABELS[key] }));
useEventListener(window, 'keydown', ({ key }: KeyboardEvent) => {
  if (open.value && (key === 'ArrowLeft' || key === 'ArrowRight')) go(key === 'ArrowLeft' ? -1 : 1);
});
function go(by: number): void {
  const to = at.value + by;
  if (props.pages[to]) at.value = to;
}
</script>

<template>
  <v-dialog
    v-model="open"
    :width="screen === 'phone' ? 520 : 1240"
    scrollable
    aria-label="Pages in a browser"
  >
    <v-card v-if="page">
      <div class="top">
        <v-btn
          :icon="mdiChevronLeft"
          size="small"
          variant="text"
          aria-label="Page before"
          :disabled="at === 0"
          @click="go(-1)"
        />
        <span class="num faint">{{ at + 1 }} of {{ pages.length }}</span>
        <v-btn
          :icon="mdiChevronRight"
          size="small"
          variant="text"
          aria-label="Next page"
          :disabled="at === pages.length - 1"
          @click="go(1)"
        />
        <a :href="page.url" target="_blank" rel="noopener noreferrer" class="mono cut">{{ page.url }}</a>
        <span class="spring" />
        <FilterButtons v-model="screen" :options="screens" label="Screen" />
        <v-btn :icon="mdiClose" size="small" variant="text" aria-label="Close" @click="open = false" />
      </div>
      <v-card-text class="scroll">
        <p v-if="view?.failure" class="fray">Not shown: {{ view.failure }}.</p>
        <p v-else-if="view" class="faint small">{{ seenFacts(view) }}</p>
        <img
          v-if="picture"
          :key="picture.sha256"
          :src="seenAddress(auditId, picture.sha256)"
          :width="width"
          :alt="`${page.url} ${SCREEN_LABELS[screen].toLowerCase()}, as a browser shows it`"
        />
        <p v-else-if="!view?.failure" class="faint">
          Its picture is not kept any more: those of the five newest audits are.
        </p>
        <p v-if="view?.cut" class="faint small">The page is longer than its picture.</p>
      </v-card-text>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.top {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 8px 12px;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
.top .num {
  white-space: nowrap;
}
.scroll {
  padding: 12px;
}
.scroll img {
  display: block;
  max-width: 100%;
  height: auto;
  margin: 0 auto;
  border: 1px solid rgb(var(--v-theme-rule));
}
.small {
  font-size: 13px;
  margin-bottom: 8px;
}
@media (max-width: 600px) {
  .top {
    flex-wrap: wrap;
  }
}
</style>
