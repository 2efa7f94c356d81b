<script setup lang="ts">
import { SITUATION_WORDS, STAGES, type Stage } from '#core/facts/situation';
import type { SiteDetail } from '~/types';

/** The head of a site, which never scrolls away: where it stands, and the ways to look at it. */
const props = defineProps<{ site: SiteDetail }>();
const emit = defineEmits<{ stage: [stage: Stage]; sum: [] }>();
const environmentId = defineModel<number>('environment', { required: true });
const tab = defineModel<string>('tab', { required: true });
const audits = useAudits();
const environment = computed(() => props.site.environments.find((p) => p.id === environmentId.value));
const running = useRunning(environment);
const TABS = [
  { key: 'ledger', label: 'Ledger' },
  { key: 'pages', label: 'Pages' },
  { key: 'records', label: 'Records' },
  { key: 'brief', label: 'Brief' },
  { key: 'launch', label: 'Launch' },
  { key: 'compare', label: 'Compare' },
  { key: 'report', label: 'Report' },
  { key: 'history', label: 'History' },
];
</script>

<template>
  <div class="head">
    <div class="inner">
      <div class="line">
        <div class="who">
          <h1 class="cut">{{ site.name }}</h1>
          <span v-if="site.client !== site.name" class="faint cut">{{ site.client }}</span>
        </div>
        <v-btn-toggle v-model="environmentId" mandatory role="group" aria-label="Environment">
          <v-btn
            v-for="p in site.environments"
            :key="p.id"
            :value="p.id"
            :title="p.url"
            :aria-pressed="p.id === environmentId"
            >{{ p.name }}</v-btn
          >
        </v-btn-toggle>
        <v-menu>
          <template #activator="{ props: activator }"
            ><button v-bind="activator" type="button" class="stagebutton">
              {{ stageWords(site) }} ▾
            </button></template
          >
          <MenuList label="Stage"
            ><MenuItem
              v-for="s in STAGES"
              :key="s"
              :title="s"
              :chosen="s === site.stage"
              @click="emit('stage', s)"
          /></MenuList>
        </v-menu>
        <span class="spring" />
        <AuditProgress v-if="running" :audit="running" class="run" />
        <template v-else>
          <LookAgain
            v-if="environment?.audit && site.stage !== 'retired'"
            @look="audits.start([environmentId], $event)"
          />
          <v-btn
            color="primary"
            variant="flat"
            :disabled="site.stage === 'retired'"
            @click="audits.start([environmentId])"
            >Audit now</v-btn
          >
        </template>
      </div>
      <div class="line">
        <div class="bigband">
          <BandStrip :band="environment?.audit?.band ?? null" :width="720" :height="18" />
        </div>
        <template v-if="environment?.audit">
          <button type="button" class="score num" title="How this score came about" @click="emit('sum')">
            {{ environment.audit.score ?? '–' }}
          </button>
          <span class="facts"
            ><span
              ><GateWord :gate="environment.audit.gate" /><span class="faint">{{
                environment.audit.gateNote.slice(environment.audit.gate.length)
              }}</span></span
            >
            <span class="faint num"
              >coverage {{ environment.audit.coverage ?? '–' }} %<template
                v-if="environment.audit.provisional"
                >, score provisional</template
              ><template v-if="environment.audit.scoreAsFound != null"
                >, {{ environment.audit.scoreAsFound }} as found</template
              >
              · judged as {{ environment.situation ? SITUATION_WORDS[environment.situation] : '' }} ·
              {{ ago(environment.audit.at)
              }}<b
                v-if="environment.audit.missing"
                :title="`Pages in a browser are missing from this audit: ${environment.audit.missing}`"
              >
                · pages in a browser are missing</b
              ></span
            ></span
          >
        </template>
        <span v-else class="faint">Not audited yet.</span>
      </div>
      <div class="tabs">
        <v-tabs v-model="tab" density="compact" color="primary">
          <v-tab v-for="t in TABS" :key="t.key" :value="t.key">{{ t.label }}</v-tab></v-tabs
        ><NuxtLink class="beside" :to="`/fixes?site=${site.id}`">Fixes of this site</NuxtLink
        ><NuxtLink class="beside" :to="`/sites/${site.id}/edit`">Edit site</NuxtLink><span class="spring" /><a
          v-if="environment"
          :href="environment.url"
          target="_blank"
          rel="noopener noreferrer"
          class="mono cut"
          >{{ environment.url }}</a
        >
      </div>
    </div>
  </div>
</template>

<style scoped>
.head {
  position: sticky;
  top: 44px;
  z-index: 900;
  background: rgb(var(--v-theme-background));
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
.inner {
  max-width: 1440px;
  margin: 0 auto;
  padding: 10px 20px 0;
}
.line {
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 34px;
  margin-bottom: 6px;
}
.who {
  display: flex;
  align-items: baseline;
  gap: 10px;
  min-width: 0;
}
.stagebutton {
  color: rgb(var(--v-theme-faint));
  white-space: nowrap;
}
.run {
  width: 320px;
}
.bigband {
  flex: 1 1 400px;
  max-width: 620px;
}
.bigband :deep(svg) {
  width: 100%;
}
.score {
  font-size: 26px;
  font-weight: 700;
  line-height: 1;
  text-decoration: underline;
  text-decoration-thickness: 1px;
  text-underline-offset: 4px;
}
.facts {
  display: flex;
  flex-direction: column;
  line-height: 1.35;
  font-size: 13px;
  min-width: 0;
}
.beside {
  margin-left: 12px;
  white-space: nowrap;
}
.tabs {
  display: flex;
  gap: 4px;
  align-items: center;
}
@media (max-width: 700px) {
  .inner {
    padding: 8px 12px 0;
  }
  .line {
    flex-wrap: wrap;
    gap: 8px;
  }
  .who {
    width: 100%;
  }
  .bigband {
    flex: 1 1 100%;
  }
  .tabs {
    flex-wrap: wrap;
  }
  .tabs a.mono {
    display: none;
  }
  .head {
    position: static;
  }
  .run {
    width: 100%;
  }
}
</style>
