<script setup lang="ts">
import { quantity } from '#core/text/quantity';
import type { OutcomeSign } from '~/composables/words';
import type { WatchData } from '~/types';

/** The watch on a launch: who has the new and who the old, the likely reason, and who changed when. */
const props = defineProps<{ siteId: number }>();
const { data: watched, fault } = useApiQuery('/api/sites/:id/watch', {
  key: () => ['site', props.siteId, 'watch'],
  params: () => ({ id: props.siteId }),
});
const {
  run: begin,
  busy: beginning,
  fault: unbegun,
} = useAction(() => api('/api/sites/:id/watch', { params: { id: props.siteId }, method: 'POST', body: {} }), {
  inPlace: true,
});
const { run: act, fault: undone } = useAction(
  (what: 'look' | 'end') =>
    api(`/api/watches/:id/${what}`, { params: { id: watched.value!.id }, method: 'POST', body: {} }),
  { inPlace: true },
);
type Subject = NonNullable<WatchData['standing']>['subjects'][number];
const SIGNS: Record<Subject['state'], OutcomeSign> = {
  new: 'passed',
  old: 'untested',
  other: 'failed',
  silent: 'cantTell',
};
const WORDS: Record<Subject['kind'], Record<Subject['state'], string>> = {
  'zone above': { new: 'new', old: 'old', other: 'other', silent: 'silent' },
  authority: { new: 'new', old: 'old', other: 'other', silent: 'silent' },
  resolver: { new: 'new', old: 'old', other: 'other', silent: 'silent' },
  https: { new: 'covered', old: 'old', other: 'not covered', silent: 'silent' },
  http: { new: 'the site', old: 'not yet', other: 'astray', silent: 'silent' },
  mail: { new: 'as before', old: 'old', other: 'other', silent: 'silent' },
};
const KINDS: [Subject['kind'], string][] = [
  ['zone above', 'The zone above'],
  ['authority', 'Name servers'],
  ['resolver', 'Resolvers'],
  ['https', 'Certificate (TLS)'],
  ['http', 'What visitors meet (HTTP)'],
  ['mail', 'Mail (MX)'],
];
const groups = computed(() =>
  KINDS.map(([kind, title]) => ({
    title,
    subjects: (watched.value?.standing?.subjects ?? []).filter((s) => s.kind === kind),
  })).filter((g) => g.subjects.length),
);
const VERDICTS = {
  waiting: 'Not yet everywhere.',
  holds: 'It holds everywhere.',
  'turned back': 'Something turned back.',
  overdue: 'Overdue.',
} as const;
const iso = (at: number): string => new Date(at).toISOString();

/** A line for each subject, over the time of the watch: in what state it was, from when to when, in shares. */
const lines = computed(() => {
  const { begunAt, endedAt, events = [], standing } = watched.value ?? {};
  const from = Date.parse(begunAt ?? '');
  // up to now, so that the newest change has some width
  const to = Math.max(standing?.at ?? 0, endedAt ? Date.parse(endedAt) : clockNow(), from + 1);
  const share = (at: number): number => (100 * (at - from)) / (to - from);
  const bySubject = new Map<string, { at: number; state: string; text: string }[]>();
  for (const { subject, at, state, text } of events)
    bySubject.set(subject, [...(bySubject.get(subject) ?? []), { at: Date.parse(at), state, text }]);
  return [...bySubject].map(([subject, list]) => ({
    subject,
    spans: list.map(({ at, state, text }, i) => ({
      state,
      left: share(at),
      width: Math.max(0.6, share(list[i + 1]?.at ?? to) - share(at)),
      title: `${moment(iso(at))}: ${state}, ${text}`,
    })),
  }));
});
const latest = computed(() => [...(watched.value?.events ?? [])].reverse().slice(0, 60));
</script>

<template>
  <section class="sheet watch" aria-label="Watch">
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <v-progress-linear v-else-if="watched === undefined" indeterminate color="primary" aria-label="Loading" />
    <template v-else>
      <div class="line">
        <h2>Watch</h2>
        <span v-if="watched" class="faint"
          >begun by {{ watched.begunBy }}, <TimeAt :iso="watched.begunAt" /> ·
          {{ quantity(watched.looks, 'look') }}</span
        >
        <span class="spring" />
        <template v-if="watched && !watched.endedAt">
          <v-btn size="small" @click="act('look')">Look now</v-btn>
          <v-btn size="small" variant="text" @click="act('end')">End the watch</v-btn>
        </template>
        <v-btn v-else size="small" color="primary" variant="flat" :loading="beginning" @click="begin()">{{
          watched ? 'Watch again' : 'Begin to watch'
        }}</v-btn>
      </div>
      <p v-if="unbegun || undone" class="fray" role="alert">{{ unbegun || undone }}</p>
      <p v-if="!watched" class="faint">
        Begin it when the change is made, or just before. It asks every name server, the zone above and the
        resolvers, then TLS, HTTP and mail, often at first and ever less; it tells when it holds, when
        something turns back, and when it is overdue, with the likely reason. It goes on when the server is
        restarted.
      </p>
      <template v-else-if="watched.standing">
        <p class="verdict" :class="{ fray: ['overdue', 'turned back'].includes(watched.standing.verdict) }">
          {{ VERDICTS[watched.standing.verdict] }}
        </p>
        <ul v-if="watched.standing.reasons.length" class="reasons" aria-label="What is wrong">
          <li v-for="reason in watched.standing.reasons" :key="reason">{{ reason }}</li>
        </ul>
        <p class="faint">
          Looked at <TimeAt :iso="iso(watched.standing.at)" /><template v-if="watched.nextAt"
            >, next <TimeAt :iso="watched.nextAt" /></template
          ><template v-if="watched.endedAt">, ended <TimeAt :iso="watched.endedAt" /></template
          ><template v-if="watched.standing.expectedBy && watched.standing.verdict !== 'holds'"
            >; old answers expire by <TimeAt :iso="iso(watched.standing.expectedBy)" /><template
              v-if="watched.standing.expectedHow"
            >
              ({{ watched.standing.expectedHow }})</template
            ></template
          >.
        </p>
        <div class="groups">
          <div v-for="g in groups" :key="g.title">
            <h3>{{ g.title }}</h3>
            <ul>
              <li v-for="s in g.subjects" :key="s.name">
                <OutcomeMark :stitch="SIGNS[s.state]" wordless aria-hidden="true" />
                <b :class="{ fray: s.state === 'other' }">{{ WORDS[s.kind][s.state] }}</b>
                <span class="mono name">{{ s.name }}</span>
                <span class="faint text"
                  >{{ s.text }}<template v-if="s.until">, until <TimeAt :iso="iso(s.until)" /></template
                ></span>
              </li>
            </ul>
          </div>
        </div>
        <h3>Who changed when</h3>
        <div class="times" role="img" aria-label="States over time; the list below says the same">
          <template v-for="l in lines" :key="l.subject">
            <span class="faint cut">{{ l.subject.replace('authority', 'name server') }}</span>
            <span class="bar"
              ><span
                v-for="(s, i) in l.spans"
                :key="i"
                :class="s.state"
                :style="{ left: `${s.left}%`, width: `${s.width}%` }"
                :title="s.title"
              ></span
            ></span>
          </template>
        </div>
        <p class="faint legend">
          <span class="bar one"><span class="new"></span></span> new
          <span class="bar one"><span class="old"></span></span> old
          <span class="bar one"><span class="other"></span></span> something else
          <span class="bar one"><span class="silent"></span></span> silent
        </p>
        <details>
          <summary>{{ quantity(watched.events.length, 'change') }}</summary>
          <ul>
            <li v-for="(e, i) in latest" :key="i">
              <TimeAt :iso="e.at" /> <span class="mono">{{ e.subject }}</span> <b>{{ e.state }}</b>
              <span class="faint text">{{ e.text }}</span>
            </li>
          </ul>
        </details>
      </template>
      <p v-else class="faint">The first look is under way.</p>
    </template>
  </section>
</template>

<style scoped>
.watch {
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
.verdict {
  font-size: 18px;
  font-weight: 650;
}
.reasons {
  font-weight: 600;
  overflow-wrap: anywhere;
}
.line {
  display: flex;
  gap: 8px 14px;
  flex-wrap: wrap;
  align-items: center;
}
.groups {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 12px 24px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0 0;
  display: grid;
  gap: 3px;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: baseline;
}
.name,
.text {
  overflow-wrap: anywhere;
}
.times {
  display: grid;
  grid-template-columns: minmax(0, 260px) minmax(0, 1fr);
  gap: 5px 12px;
  align-items: center;
}
.bar {
  position: relative;
  height: 10px;
  background: rgb(var(--v-theme-rule), 0.4);
  overflow: hidden;
}
.bar span {
  position: absolute;
  top: 0;
  bottom: 0;
}
.bar.one {
  display: inline-block;
  width: 22px;
  vertical-align: middle;
  margin-left: 10px;
}
.bar.one span {
  left: 0;
  right: 0;
}
.new {
  background: rgb(var(--v-theme-primary));
}
.old {
  background: rgb(var(--v-theme-faint));
  opacity: 0.55;
}
.other {
  background: rgb(var(--v-theme-error));
}
.silent {
  background: repeating-linear-gradient(45deg, rgb(var(--v-theme-faint)) 0 2px, transparent 2px 5px);
}
@media (max-width: 800px) {
  .groups {
    grid-template-columns: minmax(0, 1fr);
  }
  .times {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
