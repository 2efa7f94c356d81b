<script setup lang="ts">
import type { SiteDetail } from '~/types';

/** The brief of a site, to be changed; saving makes a new version and judges the stored evidence by it. */
const props = defineProps<{ siteId: number; brief: SiteDetail['brief'] }>();
const emit = defineEmits<{ saved: [] }>();
const draft = ref(draftOf(props.brief?.data));
const faults = ref<string[]>([]);
const busy = ref(false);
watch(() => props.brief?.version, () => { draft.value = draftOf(props.brief?.data); });
const others = computed(() => Object.entries(props.brief?.data ?? {}).filter(([k]) => !(k in draft.value)).map(([k, v]) => `${k}: ${typeof v === 'string' ? v : JSON.stringify(v)}`));
async function save(): Promise<void> {
  const { brief, faults: found } = briefOf(draft.value, true);
  faults.value = found;
  if (found.length) return;
  busy.value = true;
  try { const { version } = await api<{ version: number }>(`/api/sites/${props.siteId}/brief`, { method: 'PUT', body: brief }); useNotes().say(`Saved as version ${version}. The stored evidence was judged by it; audit again to look for what is new.`); emit('saved'); } catch (error) { faults.value = [(error as Error).message]; } finally { busy.value = false; }
}
</script>

<template>
  <form class="sheet form" @submit.prevent="save">
    <div class="page-head"><h2>Brief</h2><span v-if="brief" class="faint">version {{ brief.version }}, saved by {{ brief.savedBy }} on {{ moment(brief.savedAt) }}</span><span class="spring" /><v-btn type="submit" color="primary" variant="flat" :loading="busy">Save</v-btn></div>
    <p class="faint">What is officially so. A field left blank makes its checks untested.</p>
    <p v-for="f in faults" :key="f" class="fray" role="alert">{{ f }}</p>
    <BriefFields v-model="draft" />
    <div v-if="others.length" class="faint others"><p>Also on file:</p><ul><li v-for="o in others" :key="o" class="mono">{{ o }}</li></ul></div>
  </form>
</template>

<style scoped>.form { padding: 16px; display: grid; gap: 12px; max-width: 900px; } .page-head { margin: 0; } .others ul { padding-left: 18px; overflow-wrap: anywhere; }</style>
