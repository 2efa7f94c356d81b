<script setup lang="ts">
import { LIKELY, proposeTargets, redirectsCsv } from '#core/launch/former';
import {
  GONE,
  isSameAddress,
  pathOf as addressPath,
  REDIRECT_SERVERS,
  redirectLines,
} from '#core/recipes/redirects';
import { quantity } from '#core/text/quantity';
import type { SiteDetail } from '~/types';

/** Addresses of the former site and where they lead from now on: proposed, confirmed, kept in the brief, exported. */
const props = defineProps<{ site: SiteDetail }>();
const notes = useNotes();
const copy = useCopying();
const typed = ref('');
const own = ref<string[]>([]);
const { data: former, fault } = useApiQuery('/api/sites/:id/former', {
  key: () => ['site', props.site.id, 'former'],
  params: () => ({ id: props.site.id }),
});
interface Line {
  from: string;
  title?: string;
  to: string;
  score: number | null;
  why: string;
  isKept: boolean;
  /** It stays where it is: nothing to redirect. */
  isSame: boolean;
}
/** What somebody has to look at comes first. */
const rank = (line: Line): number => Number(line.isKept) + 2 * Number(line.isSame);
/** Chosen targets by former address; what is not there is as proposed. */
const chosen = reactive(new Map<string, string>());
const confirmed = reactive(new Set<string>());
const hosts = computed(() => former.value?.hosts ?? []);
const lines = computed((): Line[] => {
  const kept = new Map((former.value?.kept ?? []).map((k) => [k.from, k.to]));
  const harvested = former.value?.list ?? [];
  const known = new Set(harvested.map((p) => p.from));
  const pages = (former.value?.pages ?? []).map(({ path, title }) => ({ path, title: title ?? undefined }));
  const added = [...new Set(own.value.map(addressPath))].filter((path) => !known.has(path));
  const all = [
    ...harvested,
    ...proposeTargets(
      added.map((path) => ({ path })),
      pages,
    ),
  ];
  const about = (from: string, to: string): Pick<Line, 'from' | 'to' | 'isSame'> => {
    const target = chosen.get(from) ?? to;
    return { from, to: target, isSame: isSameAddress({ from, to: target }, hosts.value) };
  };
  const proposed = all.map((p) => ({
    ...about(p.from, kept.get(p.from) ?? p.to ?? ''),
    title: p.title,
    score: kept.has(p.from) ? null : p.score,
    why: kept.has(p.from) ? 'in the brief' : p.why,
    isKept: kept.has(p.from),
  }));
  const rest = [...kept].filter(([from]) => !all.some((p) => p.from === from));
  return [
    ...proposed,
    ...rest.map(([from, to]) => ({ ...about(from, to), score: null, why: 'in the brief', isKept: true })),
  ].sort((a, b) => rank(a) - rank(b) || (a.score ?? 0) - (b.score ?? 0));
});
const targets = computed(() => [
  { value: GONE, title: GONE, props: { subtitle: 'gone on purpose' } },
  ...(former.value?.pages ?? []).map((p) => ({
    value: p.path,
    title: p.path,
    props: { subtitle: p.title ?? undefined },
  })),
]);
const open = computed(() => lines.value.filter((l) => !l.isKept && !l.isSame && !confirmed.has(l.from)));
function confirm(line: Line, on: boolean): void {
  if (on) confirmed.add(line.from);
  else confirmed.delete(line.from);
}
/** Confirms all that are likely. */
function confirmLikely(): void {
  for (const l of open.value) if (l.to && (l.score ?? 0) >= LIKELY) confirmed.add(l.from);
}
const wanted = computed(() =>
  lines.value
    .filter((l) => l.to && (l.isKept || (confirmed.has(l.from) && !l.isSame)))
    .map(({ from, to }) => ({ from, to }))
    .sort((a, b) => (a.from < b.from ? -1 : 1)),
);
const isChanged = computed(
  () =>
    JSON.stringify(wanted.value) !==
    JSON.stringify([...(former.value?.kept ?? [])].sort((a, b) => (a.from < b.from ? -1 : 1))),
);
const {
  run: save,
  busy,
  fault: unsaved,
} = useAction(
  async () => {
    await api('/api/sites/:id/brief', {
      params: { id: props.site.id },
      method: 'PUT',
      body: { formerAddresses: wanted.value },
    });
    chosen.clear();
    confirmed.clear();
    notes.say('Kept in the brief. Audits of the launched site see whether each leads there.');
  },
  { inPlace: true },
);
function addOwn(): void {
  own.value = [...own.value, ...typed.value.split(/\s+/).filter(Boolean)].slice(0, 500);
  typed.value = '';
}
const FORMATS = [...REDIRECT_SERVERS, 'CSV'] as const;
const format = ref<(typeof FORMATS)[number]>('nginx');
const text = computed(() =>
  format.value === 'CSV'
    ? redirectsCsv(wanted.value, hosts.value)
    : redirectLines(wanted.value, format.value, hosts.value),
);
</script>

<template>
  <section class="sheet former" aria-label="Former addresses">
    <div class="line">
      <h2>Former addresses</h2>
      <span v-if="former" class="faint"
        ><template v-if="former.at">harvested <TimeAt :iso="former.at" />; </template
        >{{ quantity(lines.length, 'address', 'addresses') }}, {{ open.length }} to confirm</span
      >
      <span class="spring" />
      <v-btn size="small" :disabled="!open.length" @click="confirmLikely()">Confirm the likely ones</v-btn>
      <v-btn
        size="small"
        color="primary"
        variant="flat"
        :loading="busy"
        :disabled="!isChanged"
        @click="save()"
        >Keep in the brief</v-btn
      >
    </div>
    <p v-if="fault || unsaved" class="fray" role="alert">{{ fault || unsaved }}</p>
    <p v-if="former && !former.at" class="faint">
      The former site was not looked at while it ran: an audit of the live address before the launch harvests
      it. Addresses that you know of can be added below.
    </p>
    <v-table v-if="lines.length" density="compact">
      <thead>
        <tr>
          <th>Confirmed</th>
          <th>Former address</th>
          <th>Leads to</th>
          <th>Likely</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="l in lines" :key="l.from">
          <td>
            <v-checkbox-btn
              v-if="!l.isSame || l.isKept"
              :model-value="l.isKept || confirmed.has(l.from)"
              :disabled="l.isKept || !l.to"
              density="compact"
              :aria-label="`Confirm ${l.from}`"
              @update:model-value="confirm(l, Boolean($event))"
            />
          </td>
          <td class="from">
            <span class="mono">{{ l.from }}</span>
            <div class="faint">{{ l.title }}</div>
          </td>
          <td class="target">
            <v-combobox
              :model-value="l.to"
              :items="targets"
              :return-object="false"
              density="compact"
              hide-details
              :aria-label="`Where ${l.from} leads`"
              @update:model-value="chosen.set(l.from, String($event ?? ''))"
            />
          </td>
          <td class="why">
            <span v-if="l.to === GONE" class="faint">gone on purpose</span>
            <span v-else-if="l.isSame" class="faint">stays, nothing to redirect</span>
            <template v-else>
              <span v-if="l.score !== null" class="num">{{ l.score }} %</span>
              <span class="faint">{{ l.why }}</span>
            </template>
          </td>
        </tr>
      </tbody>
    </v-table>
    <form class="line" @submit.prevent="addOwn()">
      <v-textarea
        v-model="typed"
        label="Addresses from your own list, one a line"
        rows="1"
        auto-grow
        hide-details
        class="own"
      />
      <v-btn type="submit" size="small" :disabled="!typed.trim()">Add</v-btn>
    </form>
    <div v-if="wanted.length" class="rules">
      <div class="line">
        <h3>Redirects</h3>
        <FilterButtons
          v-model="format"
          :options="FORMATS.map((key) => ({ key, label: key }))"
          label="For which server"
        />
        <span class="spring" />
        <v-btn size="small" @click="copy(text)">Copy</v-btn>
        <v-btn
          v-if="format === 'CSV'"
          size="small"
          @click="saveText(fileName(`${site.name} redirects`, 'csv'), text, 'text/csv')"
          >Save</v-btn
        >
      </div>
      <pre class="raw" tabindex="0">{{ text }}</pre>
    </div>
  </section>
</template>

<style scoped>
.former {
  padding: 14px 16px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}
p,
h3 {
  margin: 0;
}
h3 {
  font-size: 14px;
}
.line {
  display: flex;
  gap: 8px 14px;
  flex-wrap: wrap;
  align-items: center;
}
.from {
  overflow-wrap: anywhere;
}
.why {
  min-width: 150px;
}
.why .num {
  margin-right: 6px;
}
.target {
  padding-block: 3px !important;
}
.own {
  min-width: 260px;
}
.rules {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
}
</style>
