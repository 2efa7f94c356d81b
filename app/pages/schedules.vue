<script setup lang="ts">
import { quantity } from '#core/text/quantity';
import { PART_WORDS } from '#core/facts/parts';
import type { Answer } from '~/composables/api';

/** What is audited when by itself, and how tonight stands. */
useHead({ title: 'Schedules – Armband' });
type Schedule = Answer<'/api/schedules'>[number];
const session = useSession();
const notes = useNotes();
const { data: schedules, fault: unread } = useApiQuery('/api/schedules', { key: ['schedules', 'list'] });
const { data: night } = useApiQuery('/api/schedules/tonight', { key: ['schedules', 'tonight'] });
const editing = ref<Schedule | 'new' | null>(null);
const isFast = computed(() => (night.value?.rate ?? 1) !== 1);

const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const whatText = (s: Schedule): string =>
  s.parts.length
    ? s.parts.map((p) => PART_WORDS[p]).join(', ')
    : s.checklist
      ? `only what “${s.checklist}” checks`
      : 'everything';
const pagesText = (s: Schedule): string =>
  s.pageLimit ? `, at most ${quantity(s.pageLimit, 'page')} a site` : '';
const whenText = (s: Schedule): string =>
  `${s.every === 'week' ? `${WEEKDAYS[s.weekday - 1]}s` : 'every day'}, ${s.from} to ${s.to}${
    s.notFrom ? `, not ${s.notFrom} to ${s.notTo}` : ''
  }`;
const tonightOf = computed(() => new Map((night.value?.schedules ?? []).map((s) => [s.id, s])));
function tonightText(s: Schedule): string {
  const t = tonightOf.value.get(s.id);
  if (!s.isOn && !t) return 'switched off';
  if (!t) return 'nothing within a day';
  return [
    t.planned &&
      `${t.planned} to come, ${clockTime(t.from)} to ${clockTime(t.to)}, about ${lengthText(t.takesMs)} of work`,
    t.running && `${t.running} running`,
    t.done && `${t.done} done`,
    t.covered && `${t.covered} covered by a full audit`,
    t.couldNot && `${t.couldNot} could not run`,
  ]
    .filter(Boolean)
    .join('; ');
}
const clockTime = (iso: string): string =>
  new Intl.DateTimeFormat(undefined, { timeStyle: 'short' }).format(new Date(iso));
const lengthText = (ms: number): string =>
  ms < 90_000
    ? quantity(Math.max(1, Math.round(ms / 1000)), 'second')
    : quantity(Math.round(ms / 60_000), 'minute');

const { run: turn } = useAction(async (s: Schedule) => {
  const { id, of: _, checklist: __, by: ___, ...body } = s;
  await api('/api/schedules/:id', { params: { id }, method: 'PUT', body: { ...body, isOn: !s.isOn } });
  notes.say(s.isOn ? `${s.name} is switched off.` : `${s.name} is switched on.`);
});
const { run: runNight, busy } = useAction(async (on: boolean) => {
  await api('/api/practice-night', { method: 'POST', body: { on } });
  if (on) notes.say('The clock runs: twelve hours in two minutes. Messages come by themselves.');
});
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Schedules</h1>
      <span class="faint intro"
        >What is audited by itself, in each site’s own time zone, spread over hosts and hours. What a night
        finds beyond the one before becomes a message to the site’s owner.</span
      ><span class="spring" /><v-btn
        v-if="session.me?.demo"
        :loading="busy"
        variant="text"
        @click="runNight(!isFast)"
        >{{ isFast ? 'Back to real time' : 'Run a night in two minutes' }}</v-btn
      ><v-btn color="primary" variant="flat" @click="editing = 'new'">Add a schedule</v-btn>
    </div>
    <p v-if="unread" class="fray" role="alert">{{ unread }}</p>
    <section v-else class="sheet">
      <v-table class="list" aria-label="Schedules">
        <thead>
          <tr>
            <th>Schedule</th>
            <th>Sites</th>
            <th>Looks at</th>
            <th>When</th>
            <th>Tonight</th>
            <th><span class="visually-hidden">What can be done</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in schedules ?? []" :key="s.id" :class="{ off: !s.isOn }">
            <td>
              <b>{{ s.name }}</b>
              <div v-if="s.pausedUntil" class="faint">paused until {{ dayText(s.pausedUntil) }}</div>
            </td>
            <td>{{ s.of }}</td>
            <td>{{ whatText(s) }}{{ pagesText(s) }}</td>
            <td class="num">
              {{ whenText(s) }}
              <div class="faint">in the site’s time zone, else {{ s.timeZone }}</div>
            </td>
            <td class="num">
              {{ tonightText(s) }}
              <div v-for="r in tonightOf.get(s.id)?.why ?? []" :key="r.why" class="fray">
                {{ r.count > 1 ? `${r.count} times: ` : '' }}{{ r.why }}
              </div>
            </td>
            <td class="acts">
              <v-btn
                size="small"
                variant="text"
                :aria-label="`${s.isOn ? 'Switch off' : 'Switch on'} ${s.name}`"
                @click="turn(s)"
                >{{ s.isOn ? 'Switch off' : 'Switch on' }}</v-btn><v-btn
                size="small"
                variant="text"
                :aria-label="`Change ${s.name}`"
                @click="editing = s"
                >Change</v-btn
              >
            </td>
          </tr>
        </tbody>
      </v-table>
    </section>
    <section v-if="night?.couldNot.length" class="sheet could" aria-label="What could not run">
      <h2>What could not run</h2>
      <ul>
        <li v-for="c in night.couldNot" :key="`${c.environmentId} ${c.at}`">
          <NuxtLink :to="`/sites/${c.siteId}?environment=${c.environmentId}`"
            >{{ c.site }}, {{ c.environment }}</NuxtLink
          >
          <span class="faint num"> {{ c.schedule }}, <TimeAt :iso="c.at" /></span>
          <div class="fray">{{ c.why }}</div>
        </li>
      </ul>
    </section>
    <v-dialog :model-value="editing !== null" max-width="640" @update:model-value="editing = null">
      <ScheduleForm
        v-if="editing"
        :key="editing === 'new' ? 0 : editing.id"
        :schedule="editing === 'new' ? undefined : editing"
        @done="editing = null"
      />
    </v-dialog>
  </div>
</template>

<style scoped>
.intro {
  max-width: 560px;
}
.list td {
  padding-block: 8px !important;
  vertical-align: top;
}
.off td:not(.acts) {
  color: rgb(var(--v-theme-faint));
}
.acts {
  white-space: nowrap;
  text-align: right;
}
@media (max-width: 760px) {
  .list thead {
    display: none;
  }
  .list tr,
  .list td {
    display: block;
    height: auto !important;
  }
  .list td {
    border: 0 !important;
    padding-block: 2px !important;
  }
  .list tr {
    padding-block: 8px;
    border-bottom: 1px solid rgb(var(--v-theme-rule));
  }
  .acts {
    text-align: left;
  }
}
.could {
  padding: 12px 16px;
  margin-top: 14px;
}
.could ul {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
  display: grid;
  gap: 8px;
}
</style>
