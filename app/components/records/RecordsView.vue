<script setup lang="ts">
import { mdiArrowRight, mdiContentCopy, mdiRefresh } from '@mdi/js';
import type { Part } from '#core/facts/parts';
import { durationWords } from '#core/text/duration';
import { quantity } from '#core/text/quantity';
import type { Environment } from '~/types';

/** The technical side of a site on one screen, against the brief: hosts, DNS, certificates, mail, registration. */
const props = defineProps<{ siteId: number; environment: Environment; auditId: number }>();
const audits = useAudits();
const copy = useCopying();
const { data, fault } = useApiQuery('/api/audits/:id/records', {
  key: () => ['site', props.siteId, 'records', props.auditId],
  params: () => ({ id: props.auditId }),
});
const SECTIONS: { part: Part; title: string }[] = [
  { part: 'http', title: 'Hosts' },
  { part: 'dns', title: 'DNS' },
  { part: 'tls', title: 'Certificates' },
  { part: 'registration', title: 'Registration' },
];
const allLines = computed(
  () =>
    data.value?.questions
      .map((q) => q.lines)
      .filter(Boolean)
      .join('\n') ?? '',
);
const DAY = 86_400_000;
/** Where on the line between both dates a certificate is now, in percent. */
function through(from: string, to: string): number {
  const [a, b] = [Date.parse(from), Date.parse(to)];
  return Math.min(100, Math.max(0, (100 * (clockNow() - a)) / (b - a)));
}
const daysLeft = (to: string): string => {
  const days = Math.floor((Date.parse(to) - clockNow()) / DAY);
  return days < 0 ? `ended ${quantity(-days, 'day')} ago` : `${quantity(days, 'day')} left`;
};
/** What is left of an answer that was taken at this look. @param ttl seconds */
function timeLeft(ttl: number): string {
  const left = Math.round(ttl - (clockNow() - Date.parse(data.value!.times.dns)) / 1000);
  return left > 0 ? `${durationWords(left)} left` : 'expired';
}
type Said = NonNullable<typeof data.value>['questions'][number]['said'][number];
const ROLES: Partial<Record<Said['role'], string>> = { parent: ' (zone above)', resolver: ' (resolver)' };
/** Servers that say the same, together. */
function together(said: readonly Said[]): { who: string; said: Said }[] {
  const groups = new Map<string, { who: string[]; said: Said }>();
  for (const s of said) {
    const key = JSON.stringify([[...s.values].sort(), s.rcode, s.differs]);
    const group = groups.get(key) ?? { who: [], said: s };
    group.who.push(`${s.server}${ROLES[s.role] ?? ''}`);
    groups.set(key, group);
  }
  return [...groups.values()].map((g) => ({ who: g.who.join(', '), said: g.said }));
}
</script>

<template>
  <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  <v-progress-linear v-else-if="!data" indeterminate color="primary" aria-label="Loading" />
  <div v-else class="records">
    <section v-for="s in SECTIONS" :key="s.part" class="sheet" :aria-label="s.title">
      <header>
        <h2>{{ s.title }}</h2>
        <span class="faint">looked at {{ ago(data.times[s.part]) }}</span>
        <span class="spring" />
        <v-btn
          v-if="s.part === 'dns' && allLines"
          size="small"
          variant="text"
          :prepend-icon="mdiContentCopy"
          @click="copy(allLines)"
          >Copy as zone-file lines</v-btn
        >
        <v-btn
          size="small"
          variant="text"
          :prepend-icon="mdiRefresh"
          @click="audits.start([environment.id], { parts: [s.part] })"
          >Look again</v-btn
        >
      </header>
      <template v-if="s.part === 'http'">
        <div v-for="h in data.hosts" :key="h.host" class="host">
          <h3>
            <span class="mono">{{ h.host }}</span> <span class="faint">{{ h.role }}</span>
          </h3>
          <ol v-for="e in h.entries" :key="e.label" class="chain" :aria-label="`${h.host}, ${e.label}`">
            <li class="faint label">{{ e.label }}</li>
            <li v-for="(step, i) in e.steps" :key="i">
              <v-icon v-if="i" :icon="mdiArrowRight" size="14" aria-label="leads to" />
              <span class="step" :class="{ bad: step.isBad }"
                ><span class="mono cut" :title="step.url">{{ step.url }}</span>
                <b :class="{ fray: step.isBad }">{{ step.said }}</b></span
              >
            </li>
          </ol>
        </div>
      </template>
      <table v-else-if="s.part === 'dns'" class="dns">
        <thead>
          <tr>
            <th scope="col">Name</th>
            <th scope="col">Type</th>
            <th scope="col">What the servers say</th>
            <th scope="col">The brief</th>
            <th scope="col"><span class="visually-hidden">Copy</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="q in data.questions" :key="q.name + q.type">
            <th scope="row" class="mono">{{ q.name }}</th>
            <td class="mono">{{ q.type }}</td>
            <td>
              <div v-for="g in together(q.said)" :key="g.who" class="said">
                <div class="mono values" :class="{ fray: g.said.differs }">
                  {{ g.said.rcode ?? (g.said.values.join('\n') || 'nothing') }}
                </div>
                <div class="faint small">
                  <b v-if="g.said.differs" class="fray">differs: </b>{{ g.who
                  }}<template v-if="g.said.ttl !== null">
                    ·
                    <span title="How long caches keep it, and how long one that asked at this look still does"
                      >kept for {{ durationWords(g.said.ttl) }}, {{ timeLeft(g.said.ttl) }}</span
                    ></template
                  >
                </div>
              </div>
            </td>
            <td>
              <div v-for="w in q.wanted ?? []" :key="w.value" class="wanted">
                <OutcomeMark :stitch="w.isServed ? 'passed' : 'failed'" wordless />
                <span class="mono"> {{ w.value }}</span>
                <span class="small" :class="w.isServed ? 'faint' : 'fray'">
                  {{ w.isServed ? 'served' : 'not served' }}</span
                >
              </div>
              <span v-if="!q.wanted" class="faint">–</span>
            </td>
            <td>
              <v-btn
                v-if="q.lines"
                :icon="mdiContentCopy"
                size="x-small"
                variant="text"
                :aria-label="`Copy ${q.name} ${q.type} as zone-file lines`"
                @click="copy(q.lines)"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <template v-else-if="s.part === 'tls'">
        <div v-for="c in data.certificates" :key="c.host" class="host">
          <h3>
            <span class="mono">{{ c.host }}</span>
            <span :class="c.isValid ? 'faint' : 'fray'">{{ c.said }}</span>
          </h3>
          <div v-for="(link, i) in c.chain" :key="i" class="certificate">
            <span class="cut" :title="link.names.join(', ')"
              >{{ link.subject }}<span class="faint"> from {{ link.issuer }}</span></span
            >
            <span class="line" :title="`${link.notBefore} to ${link.notAfter}`"
              ><span class="gone" :style="{ width: `${through(link.notBefore, link.notAfter)}%` }"
            /></span>
            <span class="num" :class="Date.parse(link.notAfter) < clockNow() ? 'fray' : 'faint'">{{
              daysLeft(link.notAfter)
            }}</span>
          </div>
        </div>
        <p v-if="!data.certificates.length" class="faint">No host shows a certificate.</p>
      </template>
      <template v-else>
        <p v-if="!data.registration" class="faint">
          Registration is looked up for the live environment under a name of its own.
        </p>
        <template v-else>
          <p v-if="data.registration.error" class="fray">{{ data.registration.error }}</p>
          <dl>
            <template v-for="[what, value] in data.registration.words" :key="what">
              <dt>{{ what }}</dt>
              <dd>{{ value }}</dd>
            </template>
          </dl>
        </template>
      </template>
      <template v-if="s.part === 'dns'">
        <div v-if="data.mail" class="mail">
          <h3>Mail of {{ data.mail.domain }}</h3>
          <dl>
            <dt>MX</dt>
            <dd class="mono values">{{ data.mail.exchangers.join('\n') || 'none' }}</dd>
            <dt>SPF</dt>
            <dd>
              <p>
                <b :class="{ fray: data.mail.spf.lookups > 10 }">{{
                  quantity(data.mail.spf.lookups, 'lookup')
                }}</b>
                of 10, {{ data.mail.spf.voids }} without an answer
              </p>
              <p v-for="e in data.mail.spf.errors" :key="e" class="fray">{{ e }}</p>
              <SpfBranch :branch="data.mail.spf.tree" />
            </dd>
            <dt>DMARC</dt>
            <dd>{{ data.mail.dmarc.join('; ') }}</dd>
            <template v-for="k in data.mail.dkim" :key="k.selector">
              <dt>DKIM {{ k.selector }}</dt>
              <dd>{{ k.words }}</dd>
            </template>
          </dl>
        </div>
        <div class="mail">
          <h3>CAA and DS</h3>
          <dl>
            <template v-for="c in data.caa" :key="c.name">
              <dt class="mono">{{ c.name }}</dt>
              <dd>{{ c.words.join('; ') }}</dd>
            </template>
            <template v-if="!data.caa.length">
              <dt>CAA</dt>
              <dd>none: every authority may issue</dd>
            </template>
            <dt>DS</dt>
            <dd class="mono values">{{ data.ds.join('\n') || 'none: the zone is not signed' }}</dd>
          </dl>
        </div>
      </template>
    </section>
  </div>
</template>

<style scoped>
.records {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}
section {
  padding: 10px 16px 14px;
}
header {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
h3 {
  font-size: 14px;
  margin: 8px 0 4px;
}
p {
  margin: 0;
}
.chain {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  list-style: none;
  padding: 0;
  margin: 2px 0;
  align-items: center;
}
.chain li {
  display: flex;
  gap: 6px;
  align-items: center;
  min-width: 0;
}
.label {
  width: 104px;
  font-size: 13px;
}
.step {
  display: inline-flex;
  gap: 8px;
  align-items: baseline;
  max-width: 460px;
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: 4px;
  padding: 1px 8px;
}
.step b {
  white-space: nowrap;
  font-size: 13px;
}
.step.bad {
  border-color: rgb(var(--v-theme-error));
}
.dns {
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
}
.dns th,
.dns td {
  text-align: left;
  vertical-align: top;
  padding: 5px 10px 5px 0;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
  font-weight: 400;
  overflow-wrap: anywhere;
}
.dns thead th {
  font-size: 12px;
  font-weight: 600;
}
.dns th:nth-child(1) {
  width: 24%;
}
.dns th:nth-child(2) {
  width: 74px;
}
.dns th:nth-child(4) {
  width: 22%;
}
.dns th:nth-child(5) {
  width: 40px;
}
.wanted {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: baseline;
}
.said + .said {
  margin-top: 4px;
}
.values {
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.small {
  font-size: 12.5px;
}
.certificate {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 220px 110px;
  gap: 14px;
  align-items: center;
  padding: 2px 0;
}
.line {
  height: 10px;
  border: 1px solid rgb(var(--v-theme-primary));
  border-radius: 2px;
}
.gone {
  display: block;
  height: 100%;
  border-right: 2px solid rgb(var(--v-theme-on-surface));
  background: rgb(var(--v-theme-primary), 0.25);
}
dl {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 4px 14px;
  margin: 0;
}
dt {
  color: rgb(var(--v-theme-faint));
  overflow-wrap: anywhere;
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
@media (max-width: 700px) {
  .certificate {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .certificate .line {
    display: none;
  }
  .dns,
  .dns tbody,
  .dns tr,
  .dns th,
  .dns td {
    display: block;
    width: auto !important;
  }
  .dns thead {
    display: none;
  }
  .dns tr {
    border-bottom: 1px solid rgb(var(--v-theme-rule));
    padding: 6px 0;
  }
  .dns th,
  .dns td {
    border: 0;
    padding: 1px 0;
  }
  dl {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
