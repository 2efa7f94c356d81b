<script setup lang="ts">
import { mdiDownload } from '@mdi/js';
import { useDebounceFn } from '@vueuse/core';
import { folderFault } from '#core/pictures/kit';
import type { PictureSettings } from '#core/pictures/settings';
import type { Environment, SiteDetail } from '~/types';

/** A site's share picture and icons: from one picture to the files and the tags that name them. */
const props = defineProps<{ site: SiteDetail; environment: Environment }>();
const session = useSession();
const notes = useNotes();
const { data, fault } = useApiQuery('/api/sites/:id/pictures', {
  key: () => ['site', props.site.id, 'pictures'],
  params: () => ({ id: props.site.id }),
});
const settings = ref<PictureSettings>();
/** What is kept, as it would be sent. */
let kept = '';
watch(
  data,
  (read) => {
    const now = JSON.stringify(read?.settings);
    const isTurned = settings.value && JSON.stringify(settings.value) !== kept;
    if (read && !isTurned) settings.value = JSON.parse(now) as PictureSettings;
    if (read) kept = now;
  },
  { immediate: true },
);
const wrongFolder = computed(() => (settings.value ? folderFault(settings.value.folder) : undefined));
const hasPicture = computed(() => Boolean(data.value?.share ?? data.value?.icon));
const { run: keep, fault: unkept } = useAction(
  async () => {
    const now = JSON.stringify(settings.value);
    if (now === kept || wrongFolder.value || !hasPicture.value) return true;
    await api('/api/sites/:id/pictures', {
      params: { id: props.site.id },
      method: 'PUT',
      body: settings.value,
    });
    kept = now;
    return true;
  },
  { inPlace: true },
);
watch(
  settings,
  useDebounceFn(() => void keep(), 600),
  { deep: true },
);
onBeforeUnmount(() => void keep());

async function download(): Promise<void> {
  if (!(await keep())) return;
  saveFrom(
    pictureAddress('/api/sites/:id/pictures/kit', props.site.id, { environment: props.environment.id }),
  );
}
const { run: upload, busy: uploading } = useAction(async () => {
  if (!(await keep())) return;
  await api('/api/practice-pictures', { method: 'POST', body: { environmentId: props.environment.id } });
  notes.say('The practice site has the files and the tags. Audit now to see it.');
});
</script>

<template>
  <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  <v-progress-linear v-else-if="!data || !settings" indeterminate color="primary" aria-label="Loading" />
  <template v-else>
    <div class="page-head">
      <v-text-field
        v-model="settings.folder"
        label="Folder"
        class="folder"
        :error-messages="wrongFolder"
        hide-details="auto"
      />
      <v-btn
        color="primary"
        variant="flat"
        :prepend-icon="mdiDownload"
        :disabled="!hasPicture || Boolean(wrongFolder)"
        @click="download()"
        >ZIP for {{ environment.name.toLowerCase() }}</v-btn
      >
      <v-btn
        v-if="session.me?.demo"
        :disabled="!hasPicture || Boolean(wrongFolder)"
        :loading="uploading"
        title="As somebody would at the host: only in the demo"
        @click="upload()"
        >Upload to the practice site</v-btn
      >
      <span class="spring" />
      <span class="faint small"
        >files, <span class="mono">site.webmanifest</span> and the tags to paste, with the addresses of
        {{ environment.name.toLowerCase() }}</span
      >
    </div>
    <p v-if="unkept" class="fray" role="alert">{{ unkept }}</p>
    <ShareWorkshop
      v-model="settings.share"
      :site-id="site.id"
      :environment-id="environment.id"
      :picture="data.share"
      :limit="data.limit"
      class="workshop"
    />
    <IconWorkshop
      v-model="settings.icon"
      :site-id="site.id"
      :environment-id="environment.id"
      :picture="data.icon"
      :asked="data.icons"
      class="workshop"
    />
  </template>
</template>

<style scoped>
.folder {
  max-width: 320px;
  min-width: 180px;
}
.workshop {
  padding: 14px 16px;
  display: grid;
  gap: 12px;
  margin-bottom: 14px;
}
.small {
  font-size: 12.5px;
}
</style>
