<script setup lang="ts">
import type { Report } from '#core/report/report';
import { reportTexts } from '#core/report/texts/index';
import type { Screen } from '#core/facts/rendered';
import type { RemarkRegion } from '~/types';

/** A client says something: of the whole, of a thing of the report, or of a page and a part of its picture. */
const props = defineProps<{
  about: { about: 'whole' | 'finding' | 'page'; check?: string; page?: string };
  report: Report;
  secret: string;
  picture: (sha256: string) => string;
}>();
const emit = defineEmits<{ sent: [] }>();
const isOpen = defineModel<boolean>({ required: true });
const texts = computed(() => reportTexts(props.report.language));
const words = computed(() => texts.value.shared);
const notes = useNotes();

const about = ref(props.about.about);
const check = ref<string>();
const page = ref<string>();
const screen = ref<Screen>('phone');
const region = ref<RemarkRegion | null>(null);
const text = ref('');
watch(isOpen, (opens) => {
  if (!opens) return;
  about.value = props.about.about;
  check.value = props.about.check;
  page.value = props.about.page ?? props.report.pages[0]?.url;
  region.value = null;
  // a phone shows the phone’s picture large enough to point at
  screen.value = matchMedia('(max-width: 600px)').matches ? 'phone' : 'desktop';
});
watch([page, screen, about], () => (region.value = null));

const kinds = computed(() => [
  { value: 'whole', title: words.value.whole },
  ...(findings.value.length ? [{ value: 'finding', title: words.value.finding }] : []),
  ...(props.report.pages.length ? [{ value: 'page', title: words.value.pageAbout }] : []),
]);
const findings = computed(() => {
  const { open, fresh, mended, left } = props.report;
  const all = new Map([...open, ...fresh, ...mended, ...left].map((item) => [item.check, item.about]));
  return [...all].map(([value, title]) => ({ value, title }));
});
const pages = computed(() =>
  props.report.pages.map((p) => ({ value: p.url, title: p.title ? `${p.title} (${p.path})` : p.path })),
);
const shown = computed(() => props.report.pages.find((p) => p.url === page.value));
const hasPictures = computed(() => props.report.parts.includes('pictures'));
const shot = computed(() => (hasPictures.value ? shown.value?.[screen.value] : undefined));
const screens = computed(() =>
  (['desktop', 'phone'] as const)
    .filter((s) => hasPictures.value && shown.value?.[s])
    .map((key) => ({ key, label: texts.value[key] })),
);
const {
  run: send,
  busy,
  fault,
} = useAction(
  async () => {
    const isPage = about.value === 'page';
    await api('/api/shared/:secret/remarks', {
      params: { secret: props.secret },
      method: 'POST',
      body: {
        about: about.value,
        text: text.value,
        ...(about.value === 'finding' ? { check: check.value } : {}),
        ...(isPage ? { page: page.value } : {}),
        ...(isPage && shot.value ? { screen: screen.value } : {}),
        ...(isPage && shot.value && region.value ? { region: region.value } : {}),
      },
    });
    text.value = '';
    isOpen.value = false;
    notes.say(words.value.sent);
    emit('sent');
  },
  { inPlace: true },
);
const isWhole = computed(() => about.value !== 'finding' || Boolean(check.value));
</script>

<template>
  <v-dialog v-model="isOpen" max-width="720" :aria-label="words.ask" scrollable>
    <v-card>
      <form class="remark" @submit.prevent="send()">
        <h2>{{ words.ask }}</h2>
        <v-select v-model="about" :items="kinds" :label="words.remarkAbout" hide-details />
        <v-select
          v-if="about === 'finding'"
          v-model="check"
          :items="findings"
          :label="words.finding"
          hide-details
        />
        <template v-if="about === 'page'">
          <v-select v-model="page" :items="pages" :label="texts.page" hide-details />
          <v-textarea v-model="text" :label="words.remarkText" rows="3" auto-grow hide-details />
          <template v-if="shot">
            <FilterButtons
              v-if="screens.length > 1"
              v-model="screen"
              :options="screens"
              :label="texts.page"
            />
            <p class="faint">
              {{ region ? words.regionMarked : words.regionHint }}
              <button v-if="region" type="button" class="link" @click="region = null">
                {{ words.clearRegion }}
              </button>
            </p>
            <RegionMark
              v-model="region"
              :src="picture(shot.sha256)"
              :alt="shown?.title ?? ''"
              :hint="words.regionHint"
            />
          </template>
        </template>
        <v-textarea
          v-else
          v-model="text"
          :label="words.remarkText"
          rows="3"
          auto-grow
          hide-details
          autofocus
        />
        <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
        <div class="row">
          <v-btn
            type="submit"
            color="primary"
            variant="flat"
            :loading="busy"
            :disabled="!text.trim() || !isWhole"
            >{{ words.send }}</v-btn
          >
          <v-btn variant="text" @click="isOpen = false">{{ words.cancel }}</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.remark {
  padding: 18px 20px 0;
  display: grid;
  gap: 12px;
  overflow: auto;
}
.remark p {
  margin: 0;
}
.row {
  display: flex;
  gap: 8px;
  position: sticky;
  bottom: 0;
  background: rgb(var(--v-theme-surface));
  padding: 8px 0 14px;
}
.link {
  color: rgb(var(--v-theme-primary));
  text-decoration: underline;
}
</style>
