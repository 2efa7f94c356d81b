<script setup lang="ts">
import { PHONE, rulerOf } from '#core/intended/ruler';
import { TAB_INK, TABS } from '#core/pictures/measures';
import type { TextRoom } from '#core/pages/fit';
import type { TextField } from '#core/checks/kit/default-texts';

/** The page as a listing, a shared link and a tab would carry it: sheets of paper with ink. */
const props = defineProps<{
  siteId: number;
  environmentId: number;
  /** Address of its share picture. */
  picture?: string;
  url: string;
  title: string;
  description: string;
  rooms: Record<TextField, TextRoom>;
}>();
const WIDTHS = [
  { key: 'desktop' as const, label: 'desktop' },
  { key: 'phone' as const, label: 'phone' },
];
const on = ref<'desktop' | 'phone'>('desktop');
const cutText = (field: TextField): string => {
  const { width, size } = on.value === 'phone' ? PHONE[field] : props.rooms[field];
  const { shown, cut } = rulerOf(props[field], width, size);
  return cut ? `${shown}…` : shown;
};
const where = computed(() => {
  const { host, pathname } = new URL(props.url);
  return `${host}${pathname}`;
});
const { data: found } = useApiQuery('/api/environments/:id/pictures', {
  key: () => ['site', props.siteId, 'found-pictures', props.environmentId],
  params: () => ({ id: props.environmentId }),
});
const icon = computed(() => found.value?.find((p) => p.roles.includes('icon'))?.url);
const shades = ['light', 'dark'] as const;
</script>

<template>
  <aside aria-label="Previews">
    <div class="top">
      <h2>How it will read</h2>
      <FilterButtons v-model="on" :options="WIDTHS" label="Width of the preview" />
    </div>
    <div class="paper" :class="on">
      <p class="what faint">as a listing</p>
      <p class="title">{{ cutText('title') || '(no title)' }}</p>
      <p class="mono faint cut">{{ where }}</p>
      <p class="text">{{ cutText('description') || '(a listing takes a piece of the page)' }}</p>
    </div>
    <div class="paper" :class="on">
      <p class="what faint">as a shared link</p>
      <SmallPicture
        v-if="picture"
        :environment-id="environmentId"
        :url="picture"
        :width="680"
        alt="The share picture, cropped wide"
        class="wide"
      />
      <p v-else class="none faint">no share picture</p>
      <p class="title small">{{ title || '(no title)' }}</p>
      <p class="text two">{{ description }}</p>
      <p class="mono faint cut">{{ where }}</p>
    </div>
    <div v-if="picture" class="paper narrow" :class="on">
      <SmallPicture
        :environment-id="environmentId"
        :url="picture"
        :width="240"
        alt="The share picture, cropped square"
        class="square"
      />
      <div>
        <p class="title small two">{{ title || '(no title)' }}</p>
        <p class="mono faint cut">{{ where }}</p>
      </div>
    </div>
    <div class="tabs">
      <p
        v-for="shade in shades"
        :key="shade"
        class="tab cut"
        :style="{ background: TABS[shade], color: TAB_INK[shade] }"
      >
        <SmallPicture
          v-if="icon"
          :environment-id="environmentId"
          :url="icon"
          :width="32"
          class="icon"
          :alt="`The icon on a ${shade} tab`"
        />{{ title || where }}
      </p>
    </div>
  </aside>
</template>

<style scoped>
.top {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 8px;
}
.paper {
  background: rgb(var(--v-theme-surface));
  border: 1px solid rgb(var(--v-theme-rule));
  padding: 12px 16px;
  margin-bottom: 12px;
  max-width: 640px;
}
.phone {
  max-width: 360px;
}
.what {
  font-size: 12px;
}
p {
  margin: 0;
}
.wide {
  display: block;
  width: 100%;
  max-width: 300px;
  aspect-ratio: 1200 / 630;
  object-fit: cover;
  margin: 4px 0 6px;
}
.none {
  margin: 4px 0 6px;
  font-size: 13px;
}
.narrow {
  display: grid;
  grid-template-columns: 72px minmax(0, 1fr);
  gap: 12px;
  align-items: center;
}
.square {
  width: 72px;
  height: 72px;
  object-fit: cover;
}
.tabs {
  display: flex;
  gap: 8px;
}
.tab {
  flex: 0 1 180px;
  padding: 6px 10px;
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: 4px 4px 0 0;
  font-size: 12.5px;
}
.tab .icon {
  width: 16px;
  height: 16px;
  margin-right: 8px;
  vertical-align: -3px;
}
.title {
  font-size: 20px;
  line-height: 1.3;
  font-family: Arial, Arimo, 'Liberation Sans', sans-serif;
}
.title.small {
  font-size: 16px;
  font-weight: 600;
}
.text {
  font-family: Arial, Arimo, 'Liberation Sans', sans-serif;
  line-height: 1.45;
}
</style>
