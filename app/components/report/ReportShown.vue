<script setup lang="ts">
import { quantity } from '#core/text/quantity';
import type { Environment, ReportShownData, SiteDetail } from '~/types';

/** What was shown to the client and what came back: links, remarks, yeses, editions. */
const props = defineProps<{ site: SiteDetail; environment: Environment; shown: ReportShownData }>();
const notes = useNotes();
const sharing = ref(false);
const contactId = ref<number>();
const days = ref(30);
const passphrase = ref('');
const isNew = ref(false);
const name = ref('');
const email = ref('');
/** A link that was made just now: it is not shown again. */
const made = ref<{ contact: string; address: string } | null>(null);
const DAYS = [7, 14, 30, 90, 180].map((value) => ({ value, title: `${value} days` }));
const contacts = computed(() =>
  props.shown.contacts.map((c) => ({ value: c.id, title: `${c.name}, ${c.email}` })),
);
function startSharing(): void {
  sharing.value = true;
  contactId.value = props.shown.contacts[0]?.id;
  isNew.value = !props.shown.contacts.length;
}
const {
  run: share,
  busy,
  fault,
} = useAction(
  async () => {
    const { clientId } = props.shown;
    const contact = isNew.value
      ? await api('/api/clients/:id/contacts', {
          params: { id: clientId },
          method: 'POST',
          body: { name: name.value, email: email.value },
        })
      : props.shown.contacts.find((c) => c.id === contactId.value)!;
    const { secret } = await api('/api/sites/:id/share-links', {
      params: { id: props.site.id },
      method: 'POST',
      body: {
        contactId: contact.id,
        days: days.value,
        ...(passphrase.value ? { passphrase: passphrase.value } : {}),
      },
    });
    made.value = { contact: contact.name, address: `${location.origin}/shared/${secret}` };
    sharing.value = false;
    passphrase.value = '';
    name.value = '';
    email.value = '';
  },
  { inPlace: true },
);
const { run: revoke } = useAction(async (id: number, contact: string) => {
  await api('/api/share-links/:id', { params: { id }, method: 'DELETE', body: {} });
  notes.say(`The link of ${contact} opens nothing any more.`);
});

const answering = ref(0);
const answer = ref('');
const { run: sendAnswer, fault: unanswered } = useAction(
  async (id: number) => {
    await api('/api/remarks/:id/answer', { params: { id }, method: 'POST', body: { text: answer.value } });
    answering.value = 0;
    answer.value = '';
  },
  { inPlace: true },
);
const { run: makeFix } = useAction(async (id: number) => {
  await api('/api/remarks/:id/fix', { params: { id }, method: 'POST', body: { severity: 'major' } });
  notes.say('It is a fix now. The client sees how it goes.');
});
const STATE_WORDS = {
  waiting: 'waits for an answer',
  answered: 'answered',
  taken: 'a fix, open',
  'in progress': 'a fix, in progress',
  'to verify': 'a fix, to verify',
  done: 'done',
} as const;
/** Of which remark the picture is shown. */
const looked = ref(0);
const { data: seen } = useSeen(
  () => props.site.id,
  () => props.shown.remarks.find((r) => r.id === looked.value)?.auditId ?? 0,
  () => looked.value > 0,
);
function shotOf(r: ReportShownData['remarks'][number]): string | undefined {
  const view = seen.value?.pages.find((p) => p.url === r.page)?.views.find((v) => v.screen === r.screen);
  return view?.first && seenAddress(r.auditId, view.first.sha256);
}
const { data: checks } = useApiQuery('/api/catalogue', { key: ['catalogue'] });
const titleOf = (id: string | null): string => checks.value?.find((c) => c.id === id)?.title ?? id ?? '';
</script>

<template>
  <div class="shown">
    <section class="sheet" aria-label="Remarks">
      <h2>Remarks</h2>
      <p v-if="!shown.remarks.length" class="faint">
        None yet. A contact with a link can say something of the whole, of a finding, or of a page.
      </p>
      <ul class="remarks">
        <li v-for="r in shown.remarks" :key="r.id">
          <p class="faint">
            <b>{{ r.by }}</b>, <TimeAt :iso="r.at" />:
            <template v-if="r.about === 'page'"
              >page <span class="mono">{{ pathOf(r.page!) }}</span><template v-if="r.screen">
                ({{ SCREEN_LABELS[r.screen].toLowerCase() }})</template
              ></template
            >
            <template v-else-if="r.about === 'finding'">{{ titleOf(r.check) }}</template>
            <template v-else>the whole</template>
            · {{ STATE_WORDS[r.state] }}
          </p>
          <p class="said">{{ r.text }}</p>
          <template v-if="r.region">
            <button type="button" class="link" @click="looked = looked === r.id ? 0 : r.id">
              {{ looked === r.id ? 'Hide the picture' : 'Show what is meant' }}
            </button>
            <div v-if="looked === r.id && shotOf(r)" class="shot">
              <RegionMark :model-value="r.region" :src="shotOf(r)!" :alt="`Where ${r.by} pointed`" />
            </div>
          </template>
          <p v-if="r.answer" class="answer">
            <b>{{ r.answeredBy }}:</b> {{ r.answer }}
          </p>
          <form v-if="answering === r.id" class="line" @submit.prevent="sendAnswer(r.id)">
            <v-textarea v-model="answer" label="Answer" rows="2" auto-grow hide-details autofocus />
            <v-btn type="submit" size="small" color="primary" variant="flat" :disabled="!answer.trim()"
              >Answer</v-btn
            >
          </form>
          <div class="acts">
            <v-btn
              v-if="answering !== r.id"
              size="small"
              variant="text"
              @click="
                answering = r.id;
                answer = r.answer ?? '';
              "
              >{{ r.answer ? 'Change the answer' : 'Answer' }}</v-btn
            >
            <v-btn v-if="!r.fixId" size="small" variant="text" @click="makeFix(r.id)">Make it a fix</v-btn>
            <NuxtLink v-else :to="`/fixes?site=${site.id}&view=worst`">Its fix</NuxtLink>
          </div>
        </li>
      </ul>
      <p v-if="unanswered" class="fray" role="alert">{{ unanswered }}</p>
    </section>

    <ApprovalList :approvals="shown.approvals" />

    <section class="sheet" aria-label="Links">
      <div class="head">
        <h2>Links</h2>
        <span class="spring" />
        <v-btn
          size="small"
          color="primary"
          variant="flat"
          :disabled="!shown.editions.length"
          @click="startSharing"
          >Share with a contact</v-btn
        >
      </div>
      <p v-if="!shown.editions.length" class="faint">Publish an edition first: a link shows the newest.</p>
      <ShownOnce v-if="made" :address="made.address">
        Send {{ made.contact }} this link. It is not shown again.
      </ShownOnce>
      <v-table v-if="shown.links.length" density="compact">
        <thead>
          <tr>
            <th>Contact</th>
            <th>Made</th>
            <th>Opens until</th>
            <th>Opened</th>
            <th><span class="visually-hidden">What can be done</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in shown.links" :key="l.id">
            <td>{{ l.contact }}<span v-if="l.hasPassphrase" class="faint">, with a passphrase</span></td>
            <td class="faint"><TimeAt :iso="l.at" /> by {{ l.by }}</td>
            <td>{{ l.state === 'open' ? dayText(l.expiresAt) : l.state }}</td>
            <td>
              {{ l.opened ? quantity(l.opened, 'time', 'times') : 'not yet'
              }}<span v-if="l.lastOpened" class="faint">, last <TimeAt :iso="l.lastOpened" /></span>
            </td>
            <td class="end">
              <v-btn
                v-if="l.state === 'open'"
                size="small"
                variant="text"
                :aria-label="`Revoke the link of ${l.contact}`"
                @click="revoke(l.id, l.contact)"
                >Revoke</v-btn
              >
            </td>
          </tr>
        </tbody>
      </v-table>
    </section>

    <section class="sheet" aria-label="Editions">
      <h2>Editions</h2>
      <p v-if="!shown.editions.length" class="faint">None is published yet.</p>
      <ul class="plain">
        <li v-for="e in shown.editions" :key="e.id">
          <NuxtLink :to="`/reports/${e.id}`" target="_blank">Edition {{ e.number }}</NuxtLink>
          <span class="faint"> of <TimeAt :iso="e.at" /> by {{ e.by }}</span> ·
          <a :href="`/api/reports/${e.id}/pdf`" download>PDF</a>
        </li>
      </ul>
    </section>

    <v-dialog v-model="sharing" max-width="480" aria-label="Share with a contact">
      <v-card>
        <form class="dialog" @submit.prevent="share()">
          <h2>Share with a contact</h2>
          <v-select
            v-if="!isNew"
            v-model="contactId"
            :items="contacts"
            :label="`Contact of ${site.client}`"
            hide-details
          />
          <template v-else>
            <v-text-field v-model="name" label="Name" autocomplete="off" hide-details autofocus />
            <v-text-field v-model="email" label="Mail address" type="email" autocomplete="off" hide-details />
          </template>
          <button v-if="contacts.length" type="button" class="link" @click="isNew = !isNew">
            {{ isNew ? 'One who is known already' : 'Somebody new' }}
          </button>
          <v-select v-model="days" :items="DAYS" label="Opens for" hide-details />
          <v-text-field
            v-model="passphrase"
            label="Passphrase"
            hint="If you like: tell it in another way than the link."
            persistent-hint
            autocomplete="off"
          />
          <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
          <v-btn
            type="submit"
            color="primary"
            variant="flat"
            :loading="busy"
            :disabled="isNew ? !name.trim() || !email.trim() : !contactId"
            >Make the link</v-btn
          >
        </form>
      </v-card>
    </v-dialog>
  </div>
</template>

<style scoped>
.shown {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}
section {
  padding: 14px 16px;
  display: grid;
  gap: 8px;
}
.head,
.line {
  display: flex;
  gap: 12px;
  align-items: center;
}
p {
  margin: 0;
}
.remarks,
.plain {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 12px;
}
.plain {
  gap: 4px;
}
.remarks li {
  border-left: 3px solid rgb(var(--v-theme-rule));
  padding-left: 12px;
  display: grid;
  gap: 4px;
  justify-items: start;
  overflow-wrap: anywhere;
}
.said,
.answer {
  white-space: pre-line;
}
.answer {
  background: rgb(var(--v-theme-background));
  padding: 4px 10px;
  border-radius: 4px;
}
.line {
  width: 100%;
}
.line > .v-input {
  flex: 1;
}
.acts {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-left: -12px;
}
.shot {
  max-width: 520px;
}
.end {
  text-align: right;
}
.dialog {
  padding: 18px 20px;
  display: grid;
  gap: 12px;
  justify-items: start;
}
.dialog > .v-input {
  width: 100%;
}
.link {
  color: rgb(var(--v-theme-primary));
  text-decoration: underline;
}
</style>
