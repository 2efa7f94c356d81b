<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import { OUTCOME_WORDS } from '~/composables/words';
import { textState } from '#core/pages/columns';
import { quantity } from '#core/text/quantity';

/** One page opened: where its texts come from, its source, its links, its findings, and what changed. */
const props = defineProps<{ siteId: number; environmentId: number; auditId: number }>();
const url = defineModel<string>('url', { required: true });
const emit = defineEmits<{ check: [id: string] }>();
const { data: page, fault } = useApiQuery('/api/audits/:id/pages/one', {
  key: () => ['site', props.siteId, 'pages', props.auditId],
  params: () => ({ id: props.auditId }),
  query: () => ({ url: url.value }),
});
const part = ref('origins');
const parts = computed(() => {
  const p = page.value;
  if (!p) return [];
  return [
    { key: 'origins', label: 'Texts' },
    { key: 'findings', label: 'Findings', n: p.findings.length },
    { key: 'links', label: 'Links', n: p.linksIn.count + p.linksOut.count },
    { key: 'outline', label: 'Outline', n: p.outline.length },
    { key: 'source', label: 'Source', n: p.snippets.length },
    { key: 'seen', label: 'In a browser' },
    { key: 'changes', label: 'Changed', ...(p.changes ? { n: p.changes.length } : {}) },
  ];
});
const OF = {
  page: 'the page’s own',
  site: 'the site’s default',
  host: 'the host’s default',
  nothing: 'nothing',
};
const LINKS = computed(() =>
  page.value
    ? [
        { title: 'Links in', of: page.value.linksIn, none: 'No page links here.' },
        { title: 'Links out', of: page.value.linksOut, none: 'It links to nothing.' },
      ]
    : [],
);
</script>

<template>
  <aside class="sheet panel" aria-label="Page">
    <header>
      <a :href="url" target="_blank" rel="noopener noreferrer" class="mono address">{{ url }}</a>
      <v-btn :icon="mdiClose" size="small" variant="text" aria-label="Close" @click="url = ''" />
    </header>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <v-progress-linear v-else-if="!page" indeterminate color="primary" aria-label="Loading" />
    <template v-else>
      <p class="faint facts">
        {{ page.page.status ?? page.page.error }} ·
        {{ page.page.keptOut ? `not listed: ${page.page.keptOut}` : 'may be listed' }} ·
        {{ quantity(page.page.words, 'word') }} ·
        {{
          page.page.depth === null ? 'no way from home' : `${quantity(page.page.depth, 'click')} from home`
        }}
        ·
        {{ page.page.inSitemap ? 'in the sitemap' : 'in no sitemap' }}
        <template v-if="page.page.asked"> · asked for as {{ page.page.asked }}</template>
      </p>
      <FilterButtons v-model="part" :options="parts" label="Part of the page" class="parts" />
      <table v-if="part === 'origins'" class="origins">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">What stands there, and whose it is</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="o in page.origins" :key="o.field">
            <th scope="row" class="mono">{{ o.field }}</th>
            <td>
              <div :class="{ faint: !o.value }" class="value">{{ o.value || 'nothing' }}</div>
              <div class="small" :class="{ faint: o.of === 'page' || o.of === 'nothing' }">
                {{ o.of === 'nothing' ? '' : `${o.sure === 'likely' ? 'likely ' : ''}${OF[o.of]}: `
                }}{{ o.why
                }}<template v-if="o.field === 'title'"> · {{ textState(page.page.title) }}</template
                ><template v-if="o.field === 'description'">
                  · {{ textState(page.page.description) }}</template
                >
              </div>
              <div v-for="other in o.others" :key="other.of" class="small faint">
                {{ OF[other.of] }} would give “{{ other.value }}”
              </div>
            </td>
          </tr>
        </tbody>
      </table>
      <ul v-else-if="part === 'findings'" class="plain">
        <li v-for="(f, i) in page.findings" :key="i">
          <button type="button" class="finding" @click="emit('check', f.check)">
            <OutcomeMark :stitch="f.accepted ? 'accepted' : f.outcome" /> <b>{{ f.title }}</b>
            <span class="faint">{{ f.accepted ? OUTCOME_WORDS.accepted : f.severity }}</span>
          </button>
          <div class="small">{{ f.found ?? f.reason }}</div>
          <pre v-if="f.raw" class="raw">{{ f.raw }}</pre>
        </li>
        <li v-if="!page.findings.length" class="faint">No check fails on this page.</li>
      </ul>
      <template v-else-if="part === 'links'">
        <section v-for="l in LINKS" :key="l.title">
          <h3>
            {{ l.title }} <span class="num faint">{{ l.of.count }}</span>
          </h3>
          <p v-if="!l.of.count" class="faint">{{ l.none }}</p>
          <ul class="plain">
            <li v-for="(link, i) in l.of.list" :key="i" class="link">
              <span class="cut">{{ link.text || '(no text)' }}</span>
              <span class="mono cut" :title="link.url">{{ link.url }}</span>
              <span v-if="link.status !== undefined" class="num" :class="{ fray: link.status >= 400 }">{{
                link.status
              }}</span>
            </li>
          </ul>
          <p v-if="l.of.count > l.of.list.length" class="faint">
            {{ l.of.count - l.of.list.length }} more are not shown.
          </p>
        </section>
      </template>
      <template v-else-if="part === 'outline'">
        <ol class="plain outline">
          <li v-for="(h, i) in page.outline" :key="i" :style="{ paddingLeft: `${(h.level - 1) * 18}px` }">
            <span class="mono faint">h{{ h.level }}</span> {{ h.text || '(empty)' }}
            <span class="faint small num">line {{ h.line }}</span>
          </li>
        </ol>
        <p v-if="!page.outline.length" class="faint">No headings.</p>
        <template v-if="page.alternates.length">
          <h3>Other languages (hreflang)</h3>
          <ul class="plain">
            <li v-for="a in page.alternates" :key="a.language + a.url" class="link">
              <span class="mono">{{ a.language }}</span><span class="mono cut" :title="a.url">{{
                a.url
              }}</span
              ><span class="small" :class="a.returned === false ? 'fray' : 'faint'">{{
                a.returned === null
                  ? 'not read'
                  : a.returned
                    ? 'names this page too'
                    : 'does not name this page'
              }}</span>
            </li>
          </ul>
        </template>
      </template>
      <template v-else-if="part === 'source'">
        <ul class="plain">
          <li v-for="(s, i) in page.snippets" :key="i">
            <div class="small faint">{{ s.label }}, line {{ s.line }}, column {{ s.column }}</div>
            <pre class="raw">{{ s.raw }}</pre>
          </li>
        </ul>
        <template v-for="(b, i) in page.jsonLd" :key="i">
          <h3>JSON-LD, line {{ b.line }}</h3>
          <p v-if="b.error" class="fray">{{ b.error }}</p>
          <JsonTree :raw="b.raw" />
        </template>
        <h3>Headers of the answer</h3>
        <pre class="raw">{{ page.headers.map(([name, value]) => `${name}: ${value}`).join('\n') }}</pre>
      </template>
      <template v-else-if="part === 'seen'">
        <SeenPages :site-id="siteId" :environment-id="environmentId" :audit-id="auditId" :urls="[url]" />
        <SeenFacts :site-id="siteId" :audit-id="auditId" :url="url" />
      </template>
      <template v-else>
        <p v-if="!page.changes" class="faint">The audit before did not see this page.</p>
        <p v-else-if="!page.changes.length" class="faint">Nothing changed since the audit before.</p>
        <dl v-else class="changes">
          <template v-for="c in page.changes" :key="c.what">
            <dt>{{ c.what }}</dt>
            <dd><DiffText :expected="c.before" :found="c.now" :labels="['Before', 'Now']" failed /></dd>
          </template>
        </dl>
      </template>
    </template>
  </aside>
</template>

<style scoped>
.panel {
  padding: 12px 14px 16px;
}
header {
  display: flex;
  align-items: start;
  gap: 8px;
}
.address {
  flex: 1;
  overflow-wrap: anywhere;
  padding-top: 6px;
}
.facts {
  margin: 4px 0 10px;
  font-size: 13px;
}
.parts {
  margin-bottom: 10px;
  max-width: 100%;
  overflow-x: auto;
}
.origins {
  width: 100%;
  border-collapse: collapse;
}
.origins th,
.origins td {
  text-align: left;
  vertical-align: top;
  padding: 5px 8px 5px 0;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
.origins thead th {
  font-size: 12px;
  font-weight: 600;
}
.origins tbody th {
  font-weight: 400;
  white-space: nowrap;
}
.value {
  overflow-wrap: anywhere;
}
.small {
  font-size: 12.5px;
}
.plain {
  list-style: none;
  padding: 0;
  margin: 0;
}
.plain li {
  padding: 4px 0;
}
.link {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr) 40px;
  gap: 10px;
}
.finding {
  text-align: left;
}
.finding b {
  text-decoration: underline;
  text-underline-offset: 2px;
}
h3 {
  font-size: 13px;
  margin: 12px 0 4px;
}
.changes dt {
  font-weight: 600;
  margin-top: 8px;
}
.changes dd {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
