<script setup lang="ts">
import { bytesInWords } from '#core/text/bytes';
import { quantity } from '#core/text/quantity';
import type { SeenView } from '~/composables/seen';

/** What a browser noted of one page, beside its pictures. */
const props = defineProps<{ siteId: number; auditId: number; url: string }>();
const { data: seen } = useSeen(
  () => props.siteId,
  () => props.auditId,
);
const views = computed(() => seen.value?.pages.find((p) => p.url === props.url)?.views ?? []);
const main = computed(() => views.value.find((v) => v.screen === 'desktop'));

/** A heading with its lines; what has none is left out. */
function listsOf(view: SeenView): { title: string; lines: string[] }[] {
  const { errors, complaints, failed, hosts, cookies, storage, hits, loads } = view;
  return [
    {
      title: 'Uncaught script errors',
      lines: errors.map((e) => (e.at ? `${e.message} at ${e.at}` : e.message)),
    },
    { title: 'Written to the console as errors', lines: complaints },
    { title: 'Requests that failed', lines: failed.map((f) => `${f.status ?? f.error} ${f.type} ${f.url}`) },
    {
      title: 'Counted visits, stopped before they left',
      lines: hits.map((h) => `${h.afterConsent ? 'after consent' : 'at once'}: ${h.url}`),
    },
    {
      title: 'Other hosts',
      lines: hosts.map((h) => `${h.host}, ${quantity(h.requests, 'request')}`),
    },
    {
      title: 'Cookies',
      lines: cookies.map((c) => `${c.name} of ${c.domain}${c.session ? '' : ', kept after the visit'}`),
    },
    { title: 'Storage', lines: storage.map((s) => `${s.kind} storage of ${s.origin}: ${s.keys.join(', ')}`) },
    {
      title: 'Loaded, by type',
      lines: loads.map((l) => `${l.type}: ${quantity(l.requests, 'request')}, ${bytesInWords(l.bytes)}`),
    },
  ].filter((list) => list.lines.length);
}
</script>

<template>
  <div>
    <p v-for="v in views" :key="v.screen" class="faint small">
      {{ SCREEN_LABELS[v.screen] }}: {{ v.failure ?? seenFacts(v) }}
    </p>
    <template v-if="main">
      <section v-for="l in listsOf(main)" :key="l.title">
        <h3>{{ l.title }}</h3>
        <ul>
          <li v-for="(line, i) in l.lines" :key="i" class="mono">{{ line }}</li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.small {
  font-size: 13px;
  margin: 6px 0 0;
}
h3 {
  font-size: 13px;
  margin: 12px 0 2px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  overflow-wrap: anywhere;
}
</style>
