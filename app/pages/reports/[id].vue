<script setup lang="ts">
/** An edition of a report by itself, as it was published: to be looked at and printed. */
definePageMeta({ layout: 'plain' });
const id = Number(useRoute().params.id);
const { data: edition, fault } = useApiQuery('/api/reports/:id', { key: ['report', id], params: { id } });
/** A PDF has this title: it is the agency's own. */
useHead({
  title: computed(() => {
    const report = edition.value?.report;
    return report ? [report.site, report.agency.name].filter(Boolean).join(' – ') : 'Report';
  }),
  htmlAttrs: { lang: computed(() => edition.value?.report.language ?? 'en') },
});
const picture = (sha256: string): string => seenAddress(edition.value!.auditId, sha256);
const isReady = usePicturesReady(edition);
</script>

<template>
  <div class="page" :data-ready="isReady || undefined">
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <ReportSheet
      v-else-if="edition"
      :report="edition.report"
      :number="edition.number"
      :picture="picture"
      logo="/api/report-template/logo"
    />
  </div>
</template>
