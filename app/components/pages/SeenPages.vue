<script setup lang="ts">
import { SCREENS, type Screen } from '#core/facts/rendered';
import type { SeenPage } from '~/composables/seen';

/** Pages as a browser showed them, small: desktop and phone, or phones alone. Each opens whole. */
const props = withDefaults(
  defineProps<{
    siteId: number;
    environmentId: number;
    auditId: number;
    /** These pages, where it is not all. */
    urls?: readonly string[];
    only?: Screen;
    most?: number;
  }>(),
  { urls: undefined, only: undefined, most: 12 },
);
const audits = useAudits();
const live = useLive();
const { data: seen, fault } = useSeen(
  () => props.siteId,
  () => props.auditId,
);
const pages = computed(() => {
  const all = seen.value?.pages ?? [];
  // in the order in which they are named: faults first
  return props.urls ? props.urls.flatMap((url) => all.find((p) => p.url === url) ?? []) : all;
});
const screens = computed(() => (props.only ? [props.only] : (Object.keys(SCREENS) as Screen[])));
const walking = ref(false);
const at = ref(0);
const screen = ref<Screen>('phone');
function walk(page: SeenPage, as: Screen): void {
  at.value = pages.value.indexOf(page);
  screen.value = as;
  walking.value = true;
}
const viewOf = (page: SeenPage, as: Screen) => page.views.find((v) => v.screen === as);
const HEIGHT = 130;
const widthOf = (as: Screen): number => Math.round((HEIGHT * SCREENS[as].width) / SCREENS[as].height);
</script>

<template>
  <div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <p v-else-if="seen?.missing" class="faint">
      Not rendered: {{ seen.missing }}.
      <button
        v-if="!live.running.has(environmentId)"
        type="button"
        class="link"
        @click="audits.start([environmentId], { parts: ['rendered'] })"
      >
        Look in a browser now
      </button>
    </p>
    <p v-else-if="seen && !pages.length" class="faint">A browser did not look at this page.</p>
    <ul v-else class="strip">
      <li v-for="p in pages.slice(0, most)" :key="p.url">
        <div class="pair">
          <button
            v-for="s in screens"
            :key="s"
            type="button"
            class="thumb"
            :style="{ width: `${widthOf(s)}px`, height: `${HEIGHT}px` }"
            :aria-label="`${pathOf(p.url)}, ${SCREEN_LABELS[s].toLowerCase()}: open`"
            @click="walk(p, s)"
          >
            <img
              v-if="viewOf(p, s)?.first"
              :src="seenAddress(auditId, viewOf(p, s)!.first!.sha256)"
              alt=""
              loading="lazy"
            />
            <span v-else class="faint none">{{ viewOf(p, s)?.failure ?? 'no picture kept' }}</span>
          </button>
        </div>
        <div class="mono cut path" :title="p.url">{{ pathOf(p.url) }}</div>
      </li>
    </ul>
    <p v-if="pages.length > most" class="faint">{{ pages.length - most }} more are in Pages.</p>
    <SeenWalk v-model="walking" v-model:at="at" v-model:screen="screen" :audit-id="auditId" :pages="pages" />
  </div>
</template>

<style scoped>
.strip {
  list-style: none;
  padding: 0;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 10px 14px;
}
.pair {
  display: flex;
  gap: 6px;
}
.thumb {
  border: 1px solid rgb(var(--v-theme-rule));
  background: rgb(var(--v-theme-background));
  overflow: hidden;
  padding: 0;
  cursor: zoom-in;
}
.thumb img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  object-position: top;
  display: block;
}
.none {
  display: block;
  font-size: 11px;
  line-height: 1.25;
  padding: 4px;
  overflow-wrap: anywhere;
}
.path {
  max-width: 280px;
  margin-top: 2px;
}
</style>
