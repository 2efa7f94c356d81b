<script setup lang="ts">
import type { SiteDetail } from '~/types';

/** On the way to the launch: whether it can be, which records change, and the holding page until then. */
defineProps<{ site: SiteDetail }>();
const emit = defineEmits<{ launch: [] }>();
</script>

<template>
  <div class="view">
    <section class="sheet ready" aria-label="Ready to launch">
      <div class="head">
        <h2>{{ site.stage === 'launched' ? 'Launched' : 'Ready to launch?' }}</h2>
        <span class="spring" />
        <v-btn
          v-if="site.stage !== 'launched' && site.stage !== 'retired'"
          size="small"
          color="primary"
          variant="flat"
          @click="emit('launch')"
          >Set to launched …</v-btn
        >
      </div>
      <LaunchStand :site-id="site.id" />
    </section>
    <CutOverPlan :key="`plan ${site.id}`" :site="site" />
    <HoldingKit :key="site.id" :site="site" />
  </div>
</template>

<style scoped>
.view {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}
.ready {
  padding: 14px 16px;
  display: grid;
  gap: 8px;
}
.head {
  display: flex;
  align-items: center;
}
</style>
