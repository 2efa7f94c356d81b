<script setup lang="ts">
import { PHONE, rulerOf } from '#core/intended/ruler';
import type { Room } from '#core/pages/fit';
import type { TextField } from '#core/checks/kit/default-texts';

/** The page as a listing and a shared link would carry it: two sheets of paper with ink. */
const props = defineProps<{
  url: string;
  title: string;
  description: string;
  rooms: Record<TextField, Room>;
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
      <p class="title small">{{ title || '(no title)' }}</p>
      <p class="text two">{{ description }}</p>
      <p class="mono faint cut">{{ where }}</p>
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
.two {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
}
</style>
