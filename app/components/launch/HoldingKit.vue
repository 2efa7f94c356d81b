<script setup lang="ts">
import { mdiDownload } from '@mdi/js';
import type { Brief } from '#core/facts/brief';
import {
  FILE,
  HOLDING_SERVERS,
  holdingFromBrief,
  holdingLines,
  holdingPageHtml,
  isPlainWay,
  type HoldingServer,
} from '#core/launch/holding-page';
import type { SiteDetail } from '~/types';

/** A holding page made from the brief: seen here, saved as one file, with the lines for the web server. */
const props = defineProps<{ site: SiteDetail }>();
const copy = useCopying();
const notes = useNotes();
const page = ref(
  holdingFromBrief((props.site.brief?.data ?? {}) as Brief, {
    name: props.site.name,
    launchDate: props.site.launchDate,
  }),
);
const html = computed(() => holdingPageHtml(page.value));
const way = ref({ name: 'preview', value: randomWord(), addresses: '' });
/** Hard to guess, and easy to put into an address. */
function randomWord(): string {
  return [...crypto.getRandomValues(new Uint8Array(9))].map((b) => (b % 36).toString(36)).join('');
}
const server = ref<HoldingServer>('nginx');
const servers = HOLDING_SERVERS.map((key) => ({ key, label: key }));
const lines = computed(() =>
  holdingLines(server.value, {
    name: way.value.name,
    value: way.value.value,
    addresses: way.value.addresses.split(/[\s,]+/).filter(Boolean),
  }),
);
const MOST_LOGO_BYTES = 100_000;
async function chooseLogo(file: File): Promise<void> {
  if (file.size > MOST_LOGO_BYTES) {
    notes.say('The page carries its logo in itself: at most 100 kB.', true);
    return;
  }
  const bytes = new Uint8Array(await file.arrayBuffer());
  page.value.logo = `data:${file.type};base64,${btoa(Array.from(bytes, (b) => String.fromCharCode(b)).join(''))}`;
}
</script>

<template>
  <section class="sheet kit" aria-label="Holding page">
    <h2>Holding page</h2>
    <p class="faint">
      For as long as the site is not open: one file that loads nothing from elsewhere, kept out of search
      engines, with 503 and when to come again.
    </p>
    <div class="two">
      <form class="fields" @submit.prevent>
        <v-text-field v-model="page.name" label="Name" hide-details />
        <v-text-field v-model="page.tagline" label="Tagline" hide-details />
        <v-textarea
          v-model="page.text"
          label="A sentence of your own"
          rows="2"
          auto-grow
          hide-details
          placeholder="Without one it says when the site opens"
        />
        <DayInput v-model="page.opensOn" label="Opens on" />
        <v-text-field v-model="page.contactEmail" label="Mail address" hide-details />
        <v-text-field v-model="page.phone" label="Phone" hide-details />
        <v-text-field v-model="page.language" label="Language (BCP 47)" hide-details />
        <div class="line">
          <label class="line">Colour <input v-model="page.colour" type="color" /></label>
          <FilePick
            :label="page.logo ? 'Another logo' : 'Logo'"
            accept=".png,.jpg,.jpeg,.webp,.gif,.svg"
            @chosen="chooseLogo"
          />
          <v-btn v-if="page.logo" size="small" variant="text" @click="page.logo = ''">Without</v-btn>
        </div>
        <v-btn
          :prepend-icon="mdiDownload"
          size="small"
          color="primary"
          variant="flat"
          @click="saveText(FILE, html, 'text/html')"
          >Save {{ FILE }}</v-btn
        >
      </form>
      <iframe title="The holding page" sandbox="" :srcdoc="html" />
    </div>
    <h3>A way past it</h3>
    <div class="line">
      <v-text-field v-model="way.name" label="Parameter" hide-details />
      <v-text-field v-model="way.value" label="Its value" hide-details />
      <v-text-field v-model="way.addresses" label="Addresses that get past" hide-details />
    </div>
    <p v-if="isPlainWay(way)" class="faint">
      <span class="mono">?{{ way.name }}={{ way.value }}</span> behind the address opens the site to whoever
      knows it, and a cookie keeps it open. Note it in the brief as the way past the holding page.
    </p>
    <p v-else class="faint">Letters, digits, - and _ alone: without them nobody gets past by a parameter.</p>
    <div class="line">
      <FilterButtons v-model="server" :options="servers" label="Web server" />
      <span class="spring" />
      <v-btn size="small" @click="copy(lines)">Copy</v-btn>
    </div>
    <pre class="raw" tabindex="0">{{ lines }}</pre>
  </section>
</template>

<style scoped>
.kit {
  padding: 14px 16px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}
.kit p {
  margin: 0;
}
.two {
  display: grid;
  grid-template-columns: 320px minmax(0, 1fr);
  gap: 16px;
}
.fields {
  display: grid;
  /* the first label stands on the border of its field */
  padding-top: 6px;
  gap: 10px;
  align-content: start;
  justify-items: start;
}
.fields > .v-input {
  width: 100%;
}
iframe {
  width: 100%;
  height: 100%;
  min-height: 420px;
  border: 1px solid rgb(var(--v-theme-rule));
  background: #fff;
}
.line {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
.line > .v-input {
  flex: 1 1 160px;
}
h3 {
  font-size: 14px;
  margin: 6px 0 0;
}
pre.raw {
  max-height: 320px;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
