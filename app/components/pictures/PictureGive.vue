<script setup lang="ts">
import { useDropZone } from '@vueuse/core';
import { MOST_PICTURE_BYTES, type PictureUse } from '#core/pictures/settings';
import { bytesInWords } from '#core/text/bytes';
import type { Answer } from '~/composables/api';

/** Giving a picture: from a file, dropped here, or one that the audit found. */
const props = defineProps<{
  siteId: number;
  environmentId: number;
  use: PictureUse;
  picture: Answer<'/api/sites/:id/pictures'>['share'];
}>();
const ACCEPT = '.png,.jpg,.jpeg,.webp,.avif,.svg';
const {
  run: upload,
  busy,
  fault,
} = useAction(
  (file: File) =>
    api('/api/environments/:id/pictures', {
      params: { id: props.environmentId },
      query: { use: props.use },
      method: 'POST',
      file,
    }),
  { inPlace: true },
);
const {
  run: takeFound,
  busy: taking,
  fault: notTaken,
} = useAction(
  (url: string) =>
    api('/api/environments/:id/pictures/found', {
      params: { id: props.environmentId },
      method: 'POST',
      body: { use: props.use, url },
    }),
  { inPlace: true },
);
const isOpen = ref(false);
const { data: found } = useApiQuery('/api/environments/:id/pictures', {
  key: () => ['site', props.siteId, 'found-pictures', props.environmentId],
  params: () => ({ id: props.environmentId }),
  when: isOpen,
});
const zone = ref<HTMLElement>();
const { isOverDropZone } = useDropZone(zone, {
  onDrop: (files) => files?.[0] && void upload(files[0]),
});
</script>

<template>
  <div ref="zone" class="zone" :class="{ over: isOverDropZone }">
    <p class="what">
      <template v-if="picture"
        ><b class="cut">{{ picture.name }}</b>
        <span class="num faint"
          >{{ picture.vector ? 'SVG' : `${picture.width} × ${picture.height} px` }},
          {{ bytesInWords(picture.bytes) }}</span
        ></template
      >
      <span v-else class="faint"
        >Drop a picture here: PNG, JPEG, WebP, AVIF or SVG, up to {{ MOST_PICTURE_BYTES / 2 ** 20 }} MB.</span
      >
    </p>
    <FilePick
      :label="picture ? 'Another picture' : 'Choose a picture'"
      :accept="ACCEPT"
      :disabled="busy || taking"
      @chosen="upload($event)"
    />
    <v-menu v-model="isOpen"
      ><template #activator="{ props: menu }"
        ><v-btn v-bind="menu" size="small" variant="text" :disabled="busy || taking"
          >One from the site</v-btn
        ></template
      ><MenuList label="Pictures of the site" class="found">
        <MenuItem v-if="!found" title="Looking …" />
        <MenuItem v-else-if="!found.length" title="The newest audit found no picture." />
        <MenuItem v-for="f in found" :key="f.url" @click="takeFound(f.url)">
          <template #prepend
            ><SmallPicture :environment-id="environmentId" :url="f.url" :width="96" alt="" class="thumb"
          /></template>
          <v-list-item-title class="mono">{{ pathOf(f.url) }}</v-list-item-title>
          <v-list-item-subtitle class="num"
            >{{ f.roles.join(', ') }} ·
            {{ f.type === 'svg' ? 'SVG' : `${f.width} × ${f.height} px` }}</v-list-item-subtitle
          >
        </MenuItem>
      </MenuList></v-menu
    >
    <v-progress-linear v-if="busy || taking" indeterminate color="primary" aria-label="Reading the picture" />
    <p v-if="fault || notTaken" class="fray fault" role="alert">{{ fault || notTaken }}</p>
  </div>
</template>

<style scoped>
.zone {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  border: 1px dashed rgb(var(--v-theme-rule));
  border-radius: 4px;
  padding: 6px 12px;
}
.zone.over {
  border-color: rgb(var(--v-theme-primary));
  background: rgb(var(--v-theme-primary), 0.05);
}
.what {
  display: flex;
  flex: 1 1 260px;
  gap: 10px;
  min-width: 0;
  margin: 0;
}
.fault {
  flex-basis: 100%;
  margin: 0;
}
.found {
  max-height: 360px;
  max-width: 520px;
}
.thumb {
  width: 48px;
  height: 36px;
  object-fit: contain;
  margin-right: 12px;
}
</style>
