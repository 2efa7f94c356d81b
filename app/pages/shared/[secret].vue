<script setup lang="ts">
import { reportTexts } from '#core/report/texts/index';
import type { SharedRemark } from '~/types';

/** What a client sees behind a share link: the report, a yes, and remarks. Made for a phone first. */
definePageMeta({ layout: 'plain' });
const secret = String(useRoute().params.secret);
const params = { secret };
const { data, fault, reload } = useApiQuery('/api/shared/:secret', { key: ['shared'], params });
const shared = computed(() => data.value?.shared);
const report = computed(() => shared.value?.edition.report);
const texts = computed(() => reportTexts(report.value?.language ?? 'en'));
const words = computed(() => texts.value.shared);
useHead({
  title: computed(() =>
    [report.value?.site ?? 'Report', report.value?.agency.name].filter(Boolean).join(' – '),
  ),
  htmlAttrs: { lang: computed(() => report.value?.language ?? 'en') },
  meta: [
    { name: 'robots', content: 'noindex, nofollow' },
    { name: 'referrer', content: 'no-referrer' },
  ],
});
const isReady = usePicturesReady(shared);
const address = (end: string, query = ''): string => `/api/shared/${secret}/${end}${query}`;
const picture = (sha256: string): string => address('picture', `?sha256=${sha256}`);
const date = computed(() => {
  const format = new Intl.DateTimeFormat(report.value?.language ?? 'en', { dateStyle: 'long' });
  return (iso: string): string => format.format(new Date(iso));
});

const passphrase = ref('');
const {
  run: open,
  busy: opening,
  fault: notOpened,
} = useAction(
  async () => {
    await api('/api/shared/:secret/open', {
      params,
      method: 'POST',
      body: { passphrase: passphrase.value },
    });
    await reload();
  },
  { inPlace: true },
);
// without a passphrase there is nothing to ask
watch(
  data,
  (door) => {
    if (door && !door.isOpen && !door.hasPassphrase) void open();
  },
  { immediate: true },
);

const yes = computed(() => shared.value?.yeses.find((y) => !y.withdrawn));
const lastWithdrawn = computed(() => (yes.value ? undefined : shared.value?.yeses[0]?.withdrawn));
const isNewer = computed(() => yes.value && yes.value.auditId !== shared.value?.edition.auditId);
const note = ref('');
const {
  run: sayYes,
  busy: saying,
  fault: notSaid,
} = useAction(
  async () => {
    const editionId = shared.value!.edition.id;
    await api('/api/shared/:secret/yes', { params, method: 'POST', body: { editionId, note: note.value } });
    note.value = '';
    await reload();
  },
  { inPlace: true },
);
const withdrawing = ref(false);
const reason = ref('');
const {
  run: withdraw,
  busy: withdrawingNow,
  fault: notWithdrawn,
} = useAction(
  async () => {
    await api('/api/shared/:secret/withdraw', { params, method: 'POST', body: { reason: reason.value } });
    withdrawing.value = false;
    reason.value = '';
    await reload();
  },
  { inPlace: true },
);

const remarking = ref(false);
const about = ref<{ about: 'whole' | 'finding' | 'page'; check?: string; page?: string }>({ about: 'whole' });
function ask(of: typeof about.value): void {
  about.value = of;
  remarking.value = true;
}
const pathOfPage = (url: string | null): string =>
  report.value?.pages.find((p) => p.url === url)?.path ?? url ?? '';
function aboutText({ about: what, check, page }: SharedRemark): string {
  if (what === 'whole') return words.value.whole;
  if (what === 'page') return `${texts.value.page} ${pathOfPage(page)}`;
  return texts.value.checks[check ?? '']?.[0] ?? words.value.finding;
}
</script>

<template>
  <div class="page client" :data-ready="isReady || undefined">
    <p v-if="fault" class="sheet door" role="alert">{{ fault }}</p>
    <form v-else-if="data && !data.isOpen && data.hasPassphrase" class="sheet door" @submit.prevent="open()">
      <v-text-field
        v-model="passphrase"
        :label="words.passphrase"
        type="password"
        autocomplete="off"
        autofocus
      />
      <p v-if="notOpened" class="fray" role="alert">{{ notOpened }}</p>
      <v-btn type="submit" color="primary" variant="flat" :loading="opening" :disabled="!passphrase">{{
        words.open
      }}</v-btn>
    </form>
    <p v-else-if="notOpened" class="sheet door" role="alert">{{ notOpened }}</p>
    <template v-else-if="shared && report">
      <nav class="ways" :aria-label="words.forYou">
        <a href="#yes">{{ words.yesTitle }}</a>
        <a href="#remarks">{{ words.remarksTitle }}</a>
        <a :href="address('pdf')" download>{{ words.asPdf }}</a>
      </nav>
      <ReportSheet
        :report="report"
        :number="shared.edition.number"
        :contact="shared.contact"
        :picture="picture"
        :logo="address('logo')"
      >
        <template #ask="of">
          <button type="button" class="link" @click="ask(of)">{{ words.ask }}</button>
        </template>
      </ReportSheet>

      <section id="yes" class="sheet own">
        <h2>{{ words.yesTitle }}</h2>
        <template v-if="yes">
          <p>
            <b>{{ words.saidYes(date(yes.at)) }}</b>
          </p>
          <p v-if="shared.isStale" class="fray">{{ words.stale }}</p>
          <p v-if="isNewer">{{ words.newer }}</p>
        </template>
        <p v-else-if="lastWithdrawn">{{ words.withdrawn(date(lastWithdrawn.at)) }}</p>
        <form v-if="!yes || isNewer" class="form" @submit.prevent="sayYes()">
          <p>{{ words.yesText(report.environment) }}</p>
          <v-textarea v-model="note" :label="words.yesNote" rows="2" auto-grow hide-details />
          <p v-if="notSaid" class="fray" role="alert">{{ notSaid }}</p>
          <v-btn type="submit" color="primary" variant="flat" size="large" :loading="saying">{{
            words.sayYes
          }}</v-btn>
        </form>
        <template v-if="yes">
          <form v-if="withdrawing" class="form" @submit.prevent="withdraw()">
            <v-text-field v-model="reason" :label="words.reason" hide-details autofocus />
            <p v-if="notWithdrawn" class="fray" role="alert">{{ notWithdrawn }}</p>
            <div class="row">
              <v-btn type="submit" :loading="withdrawingNow" :disabled="reason.trim().length < 3">{{
                words.withdrawYes
              }}</v-btn>
              <v-btn variant="text" @click="withdrawing = false">{{ words.cancel }}</v-btn>
            </div>
          </form>
          <button v-else type="button" class="link" @click="withdrawing = true">
            {{ words.withdrawYes }}
          </button>
        </template>
      </section>

      <section id="remarks" class="sheet own">
        <h2>{{ words.remarksTitle }}</h2>
        <p v-if="!shared.remarks.length" class="faint">{{ words.noRemarks }}</p>
        <ul class="remarks">
          <li v-for="r in shared.remarks" :key="r.id">
            <p class="faint">
              {{ aboutText(r) }} · {{ date(r.at) }} · <b>{{ words.remarkState[r.state] }}</b>
            </p>
            <p class="said">{{ r.text }}</p>
            <p v-if="r.answer" class="answer">
              <b>{{ r.answeredBy }}:</b> {{ r.answer }}
            </p>
          </li>
        </ul>
        <v-btn @click="ask({ about: 'whole' })">{{ words.ask }}</v-btn>
      </section>
      <RemarkForm
        v-model="remarking"
        :about="about"
        :report="report"
        :secret="secret"
        :picture="picture"
        @sent="reload()"
      />
    </template>
    <v-progress-linear v-else indeterminate color="primary" aria-label="Loading" />
  </div>
</template>

<style scoped>
.client {
  max-width: 900px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 16px;
  font-size: 15px;
}
.door {
  max-width: 440px;
  margin: 15vh auto 0;
  padding: 24px;
  display: grid;
  gap: 12px;
  width: 100%;
}
.ways {
  display: flex;
  gap: 16px;
  flex-wrap: wrap;
  justify-content: flex-end;
}
.own {
  padding: 18px 24px 24px;
  width: 100%;
  max-width: 860px;
  margin: 0 auto;
  display: grid;
  gap: 10px;
  justify-items: start;
  scroll-margin-top: 12px;
}
.own p {
  margin: 0;
}
.form {
  display: grid;
  gap: 12px;
  justify-items: start;
  width: 100%;
}
.form > .v-input {
  width: 100%;
}
.row {
  display: flex;
  gap: 8px;
}
.remarks {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 12px;
  width: 100%;
}
.remarks li {
  border-left: 3px solid rgb(var(--v-theme-rule));
  padding-left: 12px;
  display: grid;
  gap: 4px;
  overflow-wrap: anywhere;
}
.said,
.answer {
  white-space: pre-line;
}
.answer {
  background: rgb(var(--v-theme-background));
  padding: 6px 10px;
  border-radius: 4px;
}
.link {
  color: rgb(var(--v-theme-primary));
  text-decoration: underline;
  text-underline-offset: 2px;
  min-height: 24px;
}
@media (max-width: 600px) {
  .own {
    padding: 14px 16px 18px;
  }
}
@media print {
  .ways,
  .own,
  .link {
    display: none !important;
  }
}
</style>
