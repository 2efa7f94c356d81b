<script setup lang="ts">
import type { HostProfile } from '#core/facts/host-profile';
import { askedAs } from '#core/pictures/icon-sizes';
import { TAB_INK, TABS } from '#core/pictures/measures';

/** Icons in their real size, on a light tab and on a dark one. */
defineProps<{ icons: readonly { size: number; png: string }[]; asked: NonNullable<HostProfile['icons']> }>();
const SHADES = [
  { key: 'light' as const, label: 'On a light tab' },
  { key: 'dark' as const, label: 'On a dark tab' },
];
</script>

<template>
  <div class="tabs">
    <div
      v-for="s in SHADES"
      :key="s.key"
      class="tab"
      :style="{ background: TABS[s.key], color: TAB_INK[s.key] }"
    >
      <p class="small">{{ s.label }}</p>
      <div class="icons">
        <figure v-for="i in icons" :key="i.size">
          <img
            :src="`data:image/png;base64,${i.png}`"
            :width="i.size"
            :height="i.size"
            :alt="`Icon of ${i.size} px`"
          />
          <figcaption class="num small">
            {{ i.size }}<template v-if="askedAs(i.size, asked)">, {{ askedAs(i.size, asked) }}</template>
          </figcaption>
        </figure>
      </div>
    </div>
  </div>
</template>

<style scoped>
.tabs {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 12px;
}
.tab {
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: 4px;
  padding: 8px 12px;
}
.icons {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px 18px;
}
p,
figure {
  margin: 0;
  max-width: 100%;
}
img {
  display: block;
  max-width: 100%;
  height: auto;
}
.small {
  font-size: 12px;
}
@media (max-width: 900px) {
  .tabs {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
