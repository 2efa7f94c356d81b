<script setup lang="ts">
import { SECTIONS } from '#core/facts/finding';
import type { Report, ReportItem, ReportPage } from '#core/report/report';
import { reportTexts } from '#core/report/texts/index';

/** A report as the client reads it: on the screen, on paper and as PDF. */
const props = defineProps<{
  report: Report;
  /** The edition’s number; nothing before it is published. */
  number?: number;
  /** Whom it is for. */
  contact?: { id: number; name: string };
  /** Where a picture is to be had. */
  picture: (sha256: string) => string;
  logo: string;
}>();
defineSlots<{
  /** What can be said about a thing of the report. */
  ask?: (of: { about: 'finding' | 'page'; check?: string; page?: string }) => unknown;
}>();
const texts = computed(() => reportTexts(props.report.language));
const date = computed(() => {
  const format = new Intl.DateTimeFormat(props.report.language, { dateStyle: 'long' });
  return (iso: string): string => format.format(new Date(iso));
});
const has = (part: Report['parts'][number]): boolean => props.report.parts.includes(part);
const waiting = computed(() =>
  props.contact ? props.report.open.filter((item) => item.contactId === props.contact!.id) : [],
);
const seen = computed(() => props.report.pages.filter((p) => p.desktop || p.phone));
const bandWords = computed(() => [props.report.verdict, ...props.report.beside].join(' '));
const paragraphs = computed(() => props.report.letter.split(/\n{2,}/).filter((p) => p.trim()));
const touches = ({ failing }: ReportItem): string => (failing ? texts.value.onPages(failing) : '');
const shots = (page: ReportPage) =>
  (['desktop', 'phone'] as const).flatMap((screen) => {
    const shot = page[screen];
    return shot ? [{ screen, ...shot }] : [];
  });
</script>

<template>
  <article class="report" :lang="report.language" :style="{ '--own': report.agency.colour }">
    <header>
      <div class="own">
        <span class="agency">
          <img v-if="report.agency.hasLogo" :src="logo" alt="" class="logo" />
          <b>{{ report.agency.name }}</b>
        </span>
        <span v-if="number" class="faint num">{{ texts.edition(number) }}</span>
      </div>
      <p class="faint kind">{{ texts.report }}</p>
      <h1>{{ report.site }}</h1>
      <p class="faint">
        {{ report.environment }}, <span class="mono">{{ report.url }}</span> · {{ texts.lookedAt }}
        {{ date(report.lookedAt)
        }}<template v-if="contact"> · {{ texts.shared.forYou }} {{ contact.name }}</template>
      </p>
    </header>

    <section v-if="has('letter') && paragraphs.length" class="letter">
      <p v-for="(p, i) in paragraphs" :key="i">{{ p }}</p>
      <p v-if="report.signedBy" class="signed">{{ report.signedBy }}</p>
    </section>

    <section v-if="has('standing')">
      <h2>{{ texts.parts.standing }}</h2>
      <p class="verdict" :class="report.gate">{{ report.verdict }}</p>
      <p v-if="report.beside.length">{{ report.beside.join(' ') }}</p>
      <div class="band">
        <BandStrip :band="report.band" :width="720" :height="22" :words="bandWords" />
        <ol class="names">
          <li v-for="s in SECTIONS" :key="s">{{ texts.sections[s] }}</li>
        </ol>
      </div>
      <p class="faint small">{{ texts.bandLegend }}</p>
    </section>

    <section v-if="waiting.length" class="waiting">
      <h2>{{ texts.shared.waitsForYou }}</h2>
      <ul>
        <li v-for="item in waiting" :key="item.check">
          <b>{{ item.about }}.</b> {{ item.trouble
          }}<template v-if="item.due"> {{ texts.by }} {{ date(item.due) }}.</template>
        </li>
      </ul>
    </section>

    <section v-if="has('changed')">
      <h2>{{ texts.parts.changed }}</h2>
      <p v-if="!report.since" class="faint">{{ texts.nothing.firstReport }}</p>
      <template v-else>
        <p class="faint">
          {{ (report.isSinceReport ? texts.since : texts.sinceFirst)(date(report.since)) }}
        </p>
        <p v-if="!report.mended.length && !report.fresh.length">{{ texts.nothing.changed }}</p>
        <div class="two-lists">
          <div v-if="report.mended.length">
            <h3>{{ texts.mended }}</h3>
            <ul>
              <li v-for="item in report.mended" :key="item.check">
                <OutcomeMark stitch="passed" wordless /> {{ item.about }}
              </li>
            </ul>
          </div>
          <div v-if="report.fresh.length">
            <h3>{{ texts.fresh }}</h3>
            <ul>
              <li v-for="item in report.fresh" :key="item.check">
                <OutcomeMark stitch="failed" wordless /> {{ item.about }}
              </li>
            </ul>
          </div>
        </div>
      </template>
    </section>

    <section v-if="has('open')">
      <h2>{{ texts.parts.open }}</h2>
      <p v-if="!report.open.length && !report.smallOpen">{{ texts.nothing.open }}</p>
      <ul v-else class="items">
        <li v-for="item in report.open" :key="item.check" :class="item.severity">
          <div class="what">
            <b>{{ item.trouble || item.about }}</b>
            <div v-if="item.found" class="faint small found">{{ texts.found }}: {{ item.found }}</div>
            <p class="faint">
              {{
                [texts.gravity[item.severity], item.trouble && item.about, touches(item)]
                  .filter(Boolean)
                  .join(' · ')
              }}
            </p>
            <slot name="ask" about="finding" :check="item.check" />
          </div>
          <div class="who">
            <span v-if="item.state" class="faint">{{ texts.states[item.state] }}</span>
            <span>{{ item.who ?? texts.nobodyYet }}</span>
            <span v-if="item.due" class="num">{{ texts.by }} {{ date(item.due) }}</span>
          </div>
        </li>
      </ul>
      <p v-if="report.smallOpen" class="faint">
        {{ report.open.length ? texts.smallOpen(report.smallOpen) : texts.onlySmallOpen(report.smallOpen) }}
      </p>
    </section>

    <section v-if="has('left') && report.left.length">
      <h2>{{ texts.parts.left }}</h2>
      <ul>
        <li v-for="item in report.left" :key="item.check">{{ item.about }}</li>
      </ul>
    </section>

    <section v-if="has('pictures')">
      <h2>{{ texts.parts.pictures }}</h2>
      <p v-if="!seen.length" class="faint">{{ texts.nothing.pictures }}</p>
      <div v-else class="pages">
        <figure v-for="p in seen" :key="p.url">
          <figcaption>
            <b>{{ p.title || p.path }}</b> <span class="mono faint">{{ p.path }}</span>
            <slot name="ask" about="page" :page="p.url" />
          </figcaption>
          <div class="pair">
            <img
              v-for="shot in shots(p)"
              :key="shot.screen"
              :src="picture(shot.sha256)"
              :width="shot.width"
              :height="shot.height"
              :class="shot.screen"
              :alt="`${p.title || p.path}, ${texts[shot.screen]}`"
            />
          </div>
        </figure>
      </div>
    </section>

    <section v-if="has('manual') && report.manual.length">
      <h2>{{ texts.parts.manual }}</h2>
      <ul class="manual">
        <li v-for="m in report.manual" :key="m.about">
          <OutcomeMark :stitch="m.isDone ? 'passed' : 'untested'" wordless />
          {{ m.about }}
          <span class="faint"
            >{{ m.isDone ? texts.done : texts.notYet
            }}<template v-if="m.at">, {{ date(m.at) }}</template></span
          >
        </li>
      </ul>
    </section>
  </article>
</template>

<style scoped>
.report {
  background: rgb(var(--v-theme-surface));
  border: 1px solid rgb(var(--v-theme-rule));
  border-top: 6px solid var(--own);
  border-radius: 4px;
  padding: 28px 36px 40px;
  max-width: 860px;
  margin: 0 auto;
  font-size: 15px;
  line-height: 1.55;
  overflow-wrap: anywhere;
}
.own {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 32px;
}
.agency {
  display: flex;
  align-items: center;
  gap: 10px;
}
.logo {
  max-height: 44px;
  max-width: 240px;
}
.kind {
  margin: 18px 0 0;
}
h1 {
  font-size: 28px;
}
h2 {
  font-size: 18px;
  break-after: avoid;
  margin: 30px 0 8px;
  padding-bottom: 4px;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
h3 {
  font-size: 14px;
  margin: 8px 0 2px;
}
p {
  margin: 6px 0;
}
.letter p {
  white-space: pre-line;
  max-width: 68ch;
}
.letter {
  margin-top: 22px;
}
.signed {
  margin-top: 14px;
  font-weight: 600;
}
.verdict {
  font-size: 20px;
  font-weight: 650;
  line-height: 1.3;
}
.verdict.held {
  color: rgb(var(--v-theme-error));
}
.band {
  margin-top: 12px;
}
.band :deep(svg) {
  width: 100%;
}
.names {
  list-style: none;
  padding: 0;
  margin: 2px 0 0;
  display: grid;
  grid-template-columns: repeat(8, minmax(0, 1fr));
  font-size: 11.5px;
  line-height: 1.25;
  gap: 2px;
  hyphens: auto;
}
.small {
  font-size: 13px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
.waiting {
  border: 1px solid rgb(var(--v-theme-primary));
  border-radius: 4px;
  padding: 4px 16px 12px;
  margin-top: 20px;
}
.waiting h2 {
  margin-top: 8px;
  border: 0;
}
.two-lists {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 24px;
}
.items li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 200px;
  gap: 20px;
  padding: 10px 0 10px 12px;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
  border-left: 3px solid rgb(var(--v-theme-rule));
  break-inside: avoid;
}
.items li.blocker {
  border-left-color: rgb(var(--v-theme-error));
}
.what p {
  margin: 1px 0;
  font-size: 13.5px;
}
.who {
  display: grid;
  align-content: start;
  gap: 2px;
  font-size: 13.5px;
}
.pages {
  display: grid;
  gap: 20px;
}
figure {
  margin: 0;
  break-inside: avoid;
}
figcaption {
  margin-bottom: 6px;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
}
.pair {
  display: flex;
  gap: 12px;
  align-items: flex-start;
}
.pair img {
  border: 1px solid rgb(var(--v-theme-rule));
  height: auto;
  display: block;
  min-width: 0;
}
/* as wide as the screens are to each other at one height */
.pair .desktop {
  width: 76%;
}
.pair .phone {
  width: 22%;
}
.manual li {
  padding: 3px 0;
}
@media (max-width: 700px) {
  .report {
    padding: 18px 16px 28px;
  }
  .items li,
  .two-lists {
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
  }
  .names {
    grid-template-columns: repeat(2, minmax(0, 1fr));
    counter-reset: name;
  }
  .names li::before {
    counter-increment: name;
    content: counter(name) '. ';
  }
  h1 {
    font-size: 24px;
  }
}
@media print {
  .report {
    border: 0;
    border-top: 6px solid var(--own);
    padding: 12px 0 0;
    max-width: none;
    font-size: 10.5pt;
  }
  .pages {
    grid-template-columns: 1fr 1fr;
  }
  section {
    break-inside: auto;
  }
}
</style>

<style>
@page {
  size: A4;
  margin: 16mm 15mm;
}
</style>
