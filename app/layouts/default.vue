<script setup lang="ts">
import { quantity } from '#core/text/quantity';
import {
  mdiBellOutline,
  mdiMagnify,
  mdiThemeLightDark,
  mdiAccountCircleOutline,
  mdiProgressClock,
} from '@mdi/js';
import { useTheme } from 'vuetify';

const session = useSession();
const live = useLive();
const theme = useTheme();
const goTo = ref(false);
await session.load().catch(() => {});
onMounted(live.start);
const { rows: messages, about, hasMore, more } = useApiInfiniteQuery('/api/messages', { key: ['messages'] });
const { data: clock } = useApiQuery('/api/clock', { key: ['clock'] });
watch(clock, (told) => told && setClock(told), { immediate: true });
const unread = computed(() => about.value?.unread ?? 0);
/** All that is shown counts as read. */
const { run: read } = useAction(async () => {
  const newest = messages.value?.[0];
  if (newest && unread.value) await api('/api/messages', { method: 'POST', body: { upTo: newest.id } });
});
const { run: stopJob } = useAction((job: number) =>
  api('/api/jobs/:job/stop', { params: { job }, method: 'POST', body: {} }),
);
const working = computed(() =>
  [
    live.progress.audits.running && `${quantity(live.progress.audits.running, 'audit')} running`,
    live.progress.audits.waiting && `${quantity(live.progress.audits.waiting, 'audit')} waiting`,
    ...live.progress.jobs.map((j) => `${j.done} of ${j.total}`),
  ]
    .filter(Boolean)
    .join(', '),
);

const screens = computed(() => [
  { to: '/', label: 'Roster' },
  { to: '/fixes', label: 'Fixes' },
  { to: '/clients', label: 'Clients' },
  { to: '/checklists', label: 'Checklists' },
  { to: '/schedules', label: 'Schedules' },
  { to: '/host-profiles', label: 'Host profiles' },
  { to: '/team', label: 'Team' },
  ...(session.me?.demo ? [{ to: '/practice-net', label: 'Practice net' }] : []),
]);
function setTheme(name: 'light' | 'dark' | 'system'): void {
  theme.change(name);
  if (name === 'system') localStorage.removeItem('armband-theme');
  else localStorage.setItem('armband-theme', name);
}
useScreenKeys({
  'mod+k': () => {
    goTo.value = true;
  },
});
</script>

<template>
  <header class="bar">
    <NuxtLink to="/" class="mark" aria-label="Armband, to the roster"
      ><svg width="26" height="12" viewBox="0 0 26 12" aria-hidden="true">
        <path d="M0 0h8v12H0zM10 0h5v12h-5z" class="cloth" />
        <path d="M17 12V6l1.5-5L20 6l1.5-5L23 6v6z" class="torn" /></svg
      ><span>Armband</span></NuxtLink
    >
    <nav aria-label="Main screens">
      <NuxtLink v-for="p in screens" :key="p.to" :to="p.to" class="screen">{{ p.label }}</NuxtLink>
    </nav>
    <span class="spring" />
    <v-menu v-if="working" location="bottom end" :close-on-content-click="false">
      <template #activator="{ props }"
        ><v-btn
          v-bind="props"
          size="small"
          :prepend-icon="mdiProgressClock"
          variant="text"
          color="primary"
          class="num"
          >{{ working }}</v-btn
        ></template
      >
      <div class="sheet running">
        <JobProgress v-for="j in live.progress.jobs" :key="j.id" :job="j" @stop="stopJob(j.id)" />
        <div v-for="a in live.progress.audits.list.slice(0, 12)" :key="a.id" class="one">
          <NuxtLink :to="`/sites/${a.siteId}?environment=${a.environmentId}`"
            >{{ a.site }}, {{ a.environment }}</NuxtLink
          ><AuditProgress :audit="a" />
        </div>
      </div>
    </v-menu>
    <button type="button" class="search" @click="goTo = true">
      <v-icon :icon="mdiMagnify" size="16" /><span class="wide">Go to a site or check</span
      ><kbd class="wide">Ctrl K</kbd><span class="visually-hidden">Search</span>
    </button>
    <v-menu location="bottom end" @update:model-value="$event || read()">
      <template #activator="{ props }"
        ><v-btn
          v-bind="props"
          variant="text"
          size="small"
          :prepend-icon="mdiBellOutline"
          :aria-label="`Messages, ${unread} unread`"
          class="bell"
          :class="{ some: unread }"
          >{{ unread || '' }}</v-btn
        ></template
      >
      <div class="sheet running">
        <p v-if="!messages?.length" class="faint">
          Nothing to tell. When a fault that was left on purpose counts again, or something you attested ends,
          it stands here.
        </p>
        <NuxtLink
          v-for="m in messages ?? []"
          :key="m.id"
          :to="m.link"
          class="message"
          :class="{ unread: !m.read }"
          ><span>{{ m.text }}</span
          ><span class="faint num">{{ ago(m.at) }}</span></NuxtLink
        >
        <v-btn v-if="hasMore" size="small" variant="text" @click.stop="more()">Older ones</v-btn>
      </div>
    </v-menu>
    <v-menu location="bottom end">
      <template #activator="{ props }"
        ><v-btn
          v-bind="props"
          :icon="mdiThemeLightDark"
          variant="text"
          size="small"
          aria-label="Light or dark"
      /></template>
      <MenuList label="Light or dark"
        ><MenuItem
          v-for="n in ['light', 'dark', 'system'] as const"
          :key="n"
          :title="n === 'system' ? 'Like the system' : n === 'light' ? 'Light' : 'Dark'"
          @click="setTheme(n)"
      /></MenuList>
    </v-menu>
    <v-menu location="bottom end">
      <template #activator="{ props }"
        ><v-btn
          v-bind="props"
          variant="text"
          size="small"
          :prepend-icon="mdiAccountCircleOutline"
          aria-label="You"
          ><span class="wide">{{ session.me?.name }}</span></v-btn
        ></template
      >
      <MenuList label="You"
        ><v-list-item role="none" :title="session.me?.name" :subtitle="session.me?.email" /><MenuItem
          title="Password and sessions"
          to="/team" /><MenuItem title="Sign out" @click="session.signOut()"
      /></MenuList>
    </v-menu>
  </header>
  <v-main><slot /></v-main>
  <GoTo v-model="goTo" />
</template>

<style scoped>
.bar {
  position: sticky;
  top: 0;
  z-index: 1000;
  height: 44px;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 16px;
  background: rgb(var(--v-theme-surface));
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
.mark {
  display: flex;
  align-items: center;
  gap: 8px;
  font-weight: 700;
  letter-spacing: -0.02em;
  font-size: 16px;
  color: inherit;
  text-decoration: none;
  margin-right: 12px;
}
.cloth {
  fill: rgb(var(--v-theme-primary));
}
.torn {
  fill: rgb(var(--v-theme-error));
}
nav {
  display: flex;
  gap: 2px;
  height: 100%;
}
.screen {
  display: flex;
  align-items: center;
  padding: 0 10px;
  color: inherit;
  text-decoration: none;
  border-bottom: 2px solid transparent;
  white-space: nowrap;
}
.screen.router-link-active {
  border-bottom-color: rgb(var(--v-theme-primary));
  font-weight: 600;
}
.search {
  display: flex;
  align-items: center;
  gap: 8px;
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: 4px;
  padding: 3px 8px;
  color: rgb(var(--v-theme-faint));
}
.bell {
  min-width: 36px;
  padding: 0 6px;
}
.bell.some {
  font-weight: 700;
  color: rgb(var(--v-theme-primary));
}
.bell :deep(.v-btn__prepend) {
  margin-inline: 0 2px;
}
.message {
  display: grid;
  gap: 2px;
  color: inherit;
  text-decoration: none;
  font-size: 13px;
  border-left: 3px solid transparent;
  padding-left: 8px;
}
.message.unread {
  border-left-color: rgb(var(--v-theme-primary));
  font-weight: 600;
}
.message:hover span:first-child {
  text-decoration: underline;
}
.running {
  max-height: 70vh;
  overflow: auto;
  width: 440px;
  padding: 12px;
  display: grid;
  gap: 12px;
  box-shadow: 0 6px 24px rgb(0 0 0 / 18%);
  max-width: calc(100vw - 24px);
}
@media (max-width: 1000px) {
  .wide {
    display: none;
  }
}
@media (max-width: 700px) {
  .bar {
    padding: 0 8px;
    gap: 2px;
  }
  .mark span {
    display: none;
  }
  .mark {
    margin-right: 2px;
  }
  .screen {
    padding: 0 6px;
  }
  nav {
    overflow-x: auto;
    min-width: 0;
    scrollbar-width: none;
  }
}
</style>
