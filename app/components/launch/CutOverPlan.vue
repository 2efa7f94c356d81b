<script setup lang="ts">
import { expiryOf, FIRST_TTL } from '#core/launch/cut-over';
import { SHARE_ANSWERS, type ShareAnswer } from '#core/launch/shared-address';
import { quantity } from '#core/text/quantity';
import type { Answer } from '~/composables/api';
import type { SiteDetail } from '~/types';

/** Which records change at the launch, what stands in the way, and when the last cache has let go. */
const props = defineProps<{ site: SiteDetail }>();
const copy = useCopying();
const { data: plan, fault } = useApiQuery('/api/sites/:id/cut-over', {
  key: () => ['site', props.site.id, 'cut over'],
  params: () => ({ id: props.site.id }),
});
const changing = computed(() => (plan.value?.lines ?? []).filter((l) => l.action !== 'keep'));
const kept = computed(() => (plan.value?.lines ?? []).filter((l) => l.action === 'keep'));
const showKept = ref(false);

const changeAt = ref(likelyMoment(props.site.launchDate));
const lowerAt = ref('');
const lowerTo = ref<number>(FIRST_TTL);
/** What the launch that is under way says; until then what is typed. */
const timing = computed(() => plan.value?.timing ?? null);
watch(
  timing,
  (known) => {
    if (!known) return;
    changeAt.value = new Date(known.changedAt).toISOString();
    lowerAt.value = known.lowered ? new Date(known.lowered.at).toISOString() : '';
    lowerTo.value = known.lowered?.ttl ?? FIRST_TTL;
  },
  { immediate: true },
);
/** @param at when the TTLs are lowered; milliseconds */
const loweredAt = (at: number) =>
  Number.isNaN(at) || !(lowerTo.value > 0)
    ? undefined
    : { at, ttl: lowerTo.value, oldTtl: timing.value?.lowered?.oldTtl ?? 0 };
const lowered = computed(() => loweredAt(Date.parse(lowerAt.value)));
const moment0 = computed(() => Date.parse(changeAt.value));
type Line = NonNullable<typeof plan.value>['lines'][number];
const expiryBy = (lines: readonly Line[], low: ReturnType<typeof loweredAt>) =>
  expiryOf(lines, { changedAt: moment0.value, nsTtl: plan.value?.move?.nsTtl ?? 0, lowered: low });
const lastOf = (line: Line): number => expiryBy([line], lowered.value).at;
const format = computed(() => {
  const options = { dateStyle: 'medium', timeStyle: 'short' } as const;
  try {
    return new Intl.DateTimeFormat(undefined, { ...options, timeZone: plan.value?.timeZone ?? undefined });
  } catch {
    return new Intl.DateTimeFormat(undefined, options);
  }
});
const said = (at: number): string => (Number.isNaN(at) ? '–' : format.value.format(at));
const overall = computed(() => expiryBy(changing.value, lowered.value));
const MINUTE_MS = 60_000;
/** What lowering the TTLs now would win. */
const won = computed(() => {
  if (lowered.value || !changing.value.length || Number.isNaN(moment0.value)) return '';
  const earlier = overall.value.at - expiryBy(changing.value, loweredAt(clockNow())).at;
  return earlier >= MINUTE_MS
    ? `Lowered to ${lowerTo.value} seconds now, the last of them would let go ${spanText(earlier)} earlier.`
    : '';
});
type Compared = Answer<'/api/sites/:id/new-operator', 'POST'>;
const compared = ref<Compared>();
const {
  run: compare,
  busy: comparing,
  fault: uncompared,
} = useAction(
  async () => {
    compared.value = await api('/api/sites/:id/new-operator', {
      params: { id: props.site.id },
      method: 'POST',
      body: {},
    });
  },
  { inPlace: true },
);
const SHARE_WORDS = { moves: 'Moves', stays: 'Stays' } as const;
const { run: answer, fault: unanswered } = useAction(
  (share: string, said: ShareAnswer | null) =>
    api('/api/sites/:id/shares', {
      params: { id: props.site.id },
      method: 'POST',
      body: { share, ...(said ? { answer: said } : {}) },
    }),
  { inPlace: true },
);
const SIGN = { add: '+', change: '→', 'take away': '−', keep: '' } as const;
</script>

<template>
  <section class="sheet plan" aria-label="Cut-over plan">
    <h2>Records at the launch</h2>
    <p v-if="fault" class="faint">{{ fault }}</p>
    <template v-else-if="plan">
      <template v-if="plan.forward">
        <p>
          Set a <b>permanent forward</b> (301 or 308, path and query kept) to
          <span class="mono">{{ plan.forward.to }}</span>. Try it as a temporary one first: browsers keep a
          permanent one for long.
        </p>
        <MomentInput v-model="changeAt" label="The change is made" />
        <v-table density="compact">
          <thead>
            <tr>
              <th>Host</th>
              <th>Leads today to</th>
              <th>Old answer until</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="h in plan.forward.hosts" :key="h.host">
              <td class="mono">{{ h.host }}</td>
              <td class="mono value">{{ h.today.join(', ') || 'nothing' }}</td>
              <td class="num until">{{ said(moment0 + 1000 * h.lasts) }}</td>
            </tr>
          </tbody>
        </v-table>
      </template>
      <template v-if="plan.move">
        <p>
          <b>The name servers move</b> from {{ plan.move.from.join(', ') }} to {{ plan.move.to.join(', ') }}.
          Every record has to stand at the new ones first; caches may ask the old ones for
          {{ spanText(1000 * plan.move.nsTtl) }} after the move, so leave the old zone as it is until then.
        </p>
        <div class="line">
          <v-btn size="small" :loading="comparing" @click="compare()">Compare at the new servers</v-btn>
          <v-btn size="small" variant="text" @click="copy(plan.move.zone)">Copy the whole zone</v-btn>
        </div>
        <p v-if="uncompared" class="fray" role="alert">{{ uncompared }}</p>
        <template v-if="compared">
          <p class="faint">Asked <TimeAt :iso="compared.at" />.</p>
          <div v-for="s in compared.servers" :key="s.name">
            <p>
              <span class="mono">{{ s.name }}</span>: {{ quantity(s.good, 'set') }} of records as wanted<b
                v-if="s.differs.length"
                class="fray"
                >, {{ s.differs.length }} not</b
              >
            </p>
            <ul class="differs">
              <li v-for="d in s.differs" :key="`${d.name} ${d.type}`">
                <span class="mono">{{ d.type }} {{ d.name }}</span
                >: {{ d.error ?? (d.found.join(', ') || 'not there') }}, wanted
                <span class="mono">{{ d.wanted.join(', ') }}</span>
              </li>
            </ul>
          </div>
        </template>
      </template>
      <p v-if="plan.forward" class="faint">No records of your own have to be set.</p>
      <p v-else-if="plan.without" class="faint">{{ plan.without }}</p>
      <template v-else-if="!changing.length">
        <p>
          <b>All records are as wanted.</b>
          <span class="faint">As looked at <TimeAt :iso="plan.at" />.</span>
        </p>
        <div v-if="plan.kept">
          <div class="line">
            <h3>The way back, as it was before the launch</h3>
            <span class="spring" /><v-btn size="small" @click="copy(plan.kept)">Copy</v-btn>
          </div>
          <pre class="raw" tabindex="0">{{ plan.kept }}</pre>
        </div>
      </template>
      <template v-else>
        <p class="faint">
          From what the name servers said <TimeAt :iso="plan.at" /> to what brief and host profile ask for.
        </p>
        <ul v-if="plan.conflicts.length" class="conflicts">
          <li v-for="c in plan.conflicts" :key="c" class="fray">{{ c }}</li>
        </ul>
        <section v-if="plan.shares.length" class="shares" aria-label="What shares the address">
          <h3>What shares the address</h3>
          <ul>
            <li v-for="s in plan.shares" :key="s.id">
              <p>{{ s.text }}</p>
              <div class="line">
                <v-btn-toggle
                  :model-value="s.answer"
                  role="group"
                  :aria-label="`Does ${s.name} move?`"
                  @update:model-value="answer(s.id, $event ?? null)"
                >
                  <v-btn
                    v-for="a in SHARE_ANSWERS"
                    :key="a"
                    :value="a"
                    size="small"
                    :aria-pressed="s.answer === a"
                    >{{ SHARE_WORDS[a] }}</v-btn
                  >
                </v-btn-toggle>
                <span v-if="s.answer" class="faint">{{ s.then[s.answer] }}</span>
              </div>
            </li>
          </ul>
          <p v-if="unanswered" class="fray" role="alert">{{ unanswered }}</p>
        </section>
        <div class="line">
          <MomentInput v-model="changeAt" label="The change is made" />
          <MomentInput v-model="lowerAt" label="TTLs are lowered" />
          <label
            >to
            <input v-model.number="lowerTo" type="number" min="30" max="86400" class="num" /> seconds</label
          >
        </div>
        <p>
          <b>Old answers expire by {{ said(overall.at) }}</b
          ><span class="faint"
            ><template v-if="plan.timeZone"> ({{ plan.timeZone }})</template>: {{ overall.how }}.</span
          >
          {{ won }}
        </p>
        <v-table density="compact" class="records">
          <thead>
            <tr>
              <th>What</th>
              <th>Name</th>
              <th>Type</th>
              <th>Now</th>
              <th>Then</th>
              <th>Old answer until</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="l in showKept ? plan.lines : changing" :key="`${l.name} ${l.type}`">
              <td class="what">{{ SIGN[l.action] }} {{ l.action }}</td>
              <td class="mono">{{ l.name }}</td>
              <td class="mono">{{ l.type }}</td>
              <td class="mono value">
                <div v-for="v in l.before" :key="v">{{ v }}</div>
                <span v-if="l.ttl !== undefined" class="faint">TTL {{ l.ttl }}</span>
              </td>
              <td class="mono value">
                <div v-for="v in l.after" :key="v">{{ v }}</div>
              </td>
              <td class="num until">{{ l.action === 'keep' ? '' : said(lastOf(l)) }}</td>
            </tr>
          </tbody>
        </v-table>
        <button v-if="kept.length" type="button" class="link" @click="showKept = !showKept">
          {{ showKept ? 'Only what changes' : `${quantity(kept.length, 'set')} of records that stay` }}
        </button>
        <div class="two">
          <div>
            <div class="line">
              <h3>To paste</h3>
              <span class="spring" /><v-btn size="small" @click="copy(plan.wanted)">Copy</v-btn>
            </div>
            <pre class="raw" tabindex="0">{{ plan.wanted }}</pre>
          </div>
          <div>
            <div class="line">
              <h3>The way back</h3>
              <span class="spring" /><v-btn size="small" @click="copy(plan.back)">Copy</v-btn>
            </div>
            <pre class="raw" tabindex="0">{{ plan.back }}</pre>
          </div>
        </div>
      </template>
    </template>
    <v-progress-linear v-else indeterminate color="primary" aria-label="Loading" />
  </section>
</template>

<style scoped>
.plan {
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
.shares ul {
  list-style: none;
  padding: 0;
  margin: 4px 0 0;
  display: grid;
  gap: 10px;
}
.conflicts {
  margin: 0;
  padding-left: 18px;
}
.line {
  display: flex;
  gap: 8px 18px;
  flex-wrap: wrap;
  align-items: center;
}
input {
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: 4px;
  padding: 3px 6px;
  background: rgb(var(--v-theme-surface));
  color: inherit;
  color-scheme: inherit;
}
input.num {
  width: 80px;
}
.differs {
  margin: 0;
  overflow-wrap: anywhere;
}
.value {
  overflow-wrap: anywhere;
}
.what,
.until {
  white-space: nowrap;
}
@media (max-width: 800px) {
  .records thead {
    display: none;
  }
  .records tr,
  .records td {
    display: block;
    height: auto !important;
    border-bottom: 0 !important;
    overflow-wrap: anywhere;
  }
  .records tr {
    padding: 8px 0;
    border-top: 1px solid rgb(var(--v-theme-rule));
  }
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}
.two > div {
  min-width: 0;
}
.link {
  color: rgb(var(--v-theme-primary));
  text-decoration: underline;
  justify-self: start;
}
@media (max-width: 800px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
