<script setup lang="ts">
import { SHORTEST_PASSWORD } from '#core/entry/password';

/** The people of the agency, one's own password, and where one is signed in. */
useHead({ title: 'Team – Armband' });
const session = useSession();
const notes = useNotes();
const { data: team, fault: unread } = useApiQuery('/api/people/team', { key: ['people', 'team'] });
const { data: sessions } = useApiQuery('/api/me/sessions', { key: ['people', 'sessions'] });
const adding = ref({ name: '', email: '' });
const renaming = ref<{ id: number; name: string } | null>(null);
const removing = ref<{ id: number; name: string } | null>(null);
const made = ref<{ name: string; address: string; until: string } | null>(null);
const old = ref('');
const wanted = ref('');
/** What is being done, by a name. */
const busy = ref('');
const isBusy = (name: string): boolean => acting.value && busy.value === name;

const {
  run: act,
  busy: acting,
  fault: refused,
} = useAction(
  async (name: string, work: () => Promise<void>) => {
    busy.value = name;
    await work();
  },
  { inPlace: true },
);
const fault = computed(() => unread.value || refused.value);
const linkFor = (token: string): string => `${location.origin}/set-password#${token}`;
const add = () =>
  act('add', async () => {
    const { name, email } = adding.value;
    const { link } = await api('/api/people', { method: 'POST', body: { name, email } });
    made.value = { name, address: linkFor(link.token), until: link.until };
    adding.value = { name: '', email: '' };
  });
const makeLink = (p: { id: number; name: string }) =>
  act(`link ${p.id}`, async () => {
    const { token, until } = await api('/api/people/:id/link', {
      params: { id: p.id },
      method: 'POST',
      body: {},
    });
    made.value = { name: p.name, address: linkFor(token), until };
  });
const mayChange = computed(() => session.me?.owner ?? false);
const setOwner = (p: { id: number; owner: boolean }) =>
  act(`owner ${p.id}`, async () => {
    await api('/api/people/:id', { params: { id: p.id }, method: 'PATCH', body: { owner: !p.owner } });
    session.me = await api('/api/me');
  });
const rename = () =>
  act('rename', async () => {
    const { id, name } = renaming.value!;
    await api('/api/people/:id', { params: { id }, method: 'PATCH', body: { name } });
    renaming.value = null;
  });
const remove = () =>
  act('remove', async () => {
    const { id, name } = removing.value!;
    await api('/api/people/:id', { params: { id }, method: 'DELETE', body: {} });
    removing.value = null;
    notes.say(`${name} is removed; what they did keeps their name.`);
  });
const endSession = (key: string) =>
  act(`end ${key}`, async () => {
    await api('/api/me/sessions/:key', { params: { key }, method: 'DELETE', body: {} });
  });
const endAll = () =>
  act('end all', async () => {
    await api('/api/me/sessions/end-all', { method: 'POST', body: {} });
    notes.say('All other sessions have ended.');
  });

const {
  run: changePassword,
  busy: changing,
  fault: passwordFault,
} = useAction(
  async () => {
    await api('/api/me/password', { method: 'POST', body: { old: old.value, wanted: wanted.value } });
    old.value = '';
    wanted.value = '';
    notes.say('Your password is changed; all your other sessions have ended.');
  },
  { inPlace: true },
);

/** What a browser calls itself, in a few words. */
function browserOf(agent: string): string {
  const browser = /(Firefox|Edg|OPR|Chrome|Safari)\//.exec(agent)?.[1] ?? 'A program';
  const system = /Windows|Android|iPhone|iPad|Mac OS X|Linux/.exec(agent)?.[0] ?? '';
  const name = browser === 'Edg' ? 'Edge' : browser === 'OPR' ? 'Opera' : browser;
  return system ? `${name} on ${system}` : name;
}
const dated = (iso: string): string =>
  new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(iso));
</script>

<template>
  <div class="page narrow">
    <div class="page-head">
      <h1>Team</h1>
      <span class="spring" /><NuxtLink to="/report-template">Report template</NuxtLink>
      <NuxtLink to="/launch-template">Run sheet</NuxtLink>
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <section class="sheet" aria-label="People">
      <h2>People</h2>
      <p class="faint">
        Everybody here may do everything, but adding and removing people is for owners. A blocker is accepted
        by two people, so a team has at least two.
      </p>
      <v-table class="people" density="compact">
        <thead>
          <tr>
            <th>Name</th>
            <th>Mail address</th>
            <th>Last seen</th>
            <th v-if="mayChange"><span class="visually-hidden">What can be done</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in team?.people ?? []" :key="p.id">
            <td>
              {{ p.name }}<span v-if="p.owner" class="faint">, owner</span
              ><span v-if="p.id === session.me?.id" class="faint">, you</span>
            </td>
            <td class="cut">{{ p.email }}</td>
            <td class="faint">
              <span v-if="!p.hasPassword">has chosen no password yet</span
              ><span v-else-if="p.lastSeen" :title="p.lastSeen">{{ ago(p.lastSeen) }}</span
              ><span v-else>signed out</span>
            </td>
            <td v-if="mayChange" class="acts">
              <v-btn
                size="small"
                variant="text"
                :loading="isBusy(`owner ${p.id}`)"
                :aria-label="p.owner ? `Remove ${p.name} as owner` : `Make ${p.name} an owner`"
                @click="setOwner(p)"
                >{{ p.owner ? 'Remove as owner' : 'Make owner' }}</v-btn><v-btn
                size="small"
                variant="text"
                @click="renaming = { id: p.id, name: p.name }"
                >Rename</v-btn
              ><v-btn
                size="small"
                variant="text"
                :loading="isBusy(`link ${p.id}`)"
                :aria-label="`Password link for ${p.name}`"
                @click="makeLink(p)"
                >Password link</v-btn
              ><v-btn
                size="small"
                variant="text"
                :disabled="p.id === session.me?.id"
                :aria-label="`Remove ${p.name}`"
                @click="removing = { id: p.id, name: p.name }"
                >Remove</v-btn
              >
            </td>
          </tr>
        </tbody>
      </v-table>
      <form v-if="mayChange" class="line" @submit.prevent="add">
        <v-text-field v-model="adding.name" label="Name" autocomplete="off" />
        <v-text-field v-model="adding.email" label="Mail address" type="email" autocomplete="off" />
        <v-btn
          type="submit"
          color="primary"
          variant="flat"
          :loading="isBusy('add')"
          :disabled="!adding.name.trim() || !adding.email.trim()"
          >Add</v-btn
        >
      </form>
      <ShownOnce v-if="made" :address="made.address">
        Give {{ made.name }} this link. It works once, until {{ dated(made.until) }}, and is not shown again.
      </ShownOnce>
    </section>
    <section class="sheet" aria-label="Your password">
      <h2>Your password</h2>
      <form class="line" @submit.prevent="changePassword">
        <v-text-field
          v-model="old"
          label="The one you have"
          type="password"
          autocomplete="current-password"
        />
        <v-text-field
          v-model="wanted"
          label="A new one"
          type="password"
          autocomplete="new-password"
          :hint="`at least ${SHORTEST_PASSWORD} characters`"
          persistent-hint
        />
        <v-btn type="submit" :loading="changing" :disabled="!old || !wanted">Change it</v-btn>
      </form>
      <p v-if="passwordFault" class="fray" role="alert">{{ passwordFault }}</p>
    </section>
    <section class="sheet" aria-label="Where you are signed in">
      <div class="page-head">
        <h2>Where you are signed in</h2>
        <span class="spring" /><v-btn
          size="small"
          :loading="isBusy('end all')"
          :disabled="(sessions?.length ?? 0) < 2"
          @click="endAll"
          >Sign out everywhere else</v-btn
        >
      </div>
      <div v-for="s in sessions ?? []" :key="s.key" class="session">
        <span>{{ browserOf(s.agent) }}</span><span class="faint num">{{ s.address }}</span
        ><span class="faint" :title="s.lastSeen">{{
          s.isThis ? 'this browser' : `last seen ${ago(s.lastSeen)}`
        }}</span
        ><v-btn
          v-if="!s.isThis"
          size="small"
          variant="text"
          :loading="isBusy(`end ${s.key}`)"
          @click="endSession(s.key)"
          >Sign out</v-btn
        >
      </div>
    </section>
    <v-dialog :model-value="renaming !== null" max-width="420" @update:model-value="renaming = null">
      <form v-if="renaming" class="sheet dialog" @submit.prevent="rename">
        <h2>Rename</h2>
        <v-text-field v-model="renaming.name" label="Name" autofocus />
        <div class="page-head">
          <span class="spring" /><v-btn variant="text" @click="renaming = null">Cancel</v-btn
          ><v-btn
            type="submit"
            color="primary"
            variant="flat"
            :loading="isBusy('rename')"
            :disabled="!renaming.name.trim()"
            >Rename</v-btn
          >
        </div>
      </form>
    </v-dialog>
    <v-dialog :model-value="removing !== null" max-width="460" @update:model-value="removing = null">
      <div v-if="removing" class="sheet dialog">
        <h2>Remove {{ removing.name }}?</h2>
        <p>
          Their sessions end at once, and their open fixes have no owner any more. What they attested and
          accepted stays, under their name. They can be added again.
        </p>
        <div class="page-head">
          <span class="spring" /><v-btn variant="text" @click="removing = null">Cancel</v-btn
          ><v-btn color="error" variant="flat" :loading="isBusy('remove')" @click="remove">Remove</v-btn>
        </div>
      </div>
    </v-dialog>
  </div>
</template>

<style scoped>
.narrow {
  max-width: 940px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}
section,
.dialog {
  padding: 16px;
  display: grid;
  gap: 12px;
}
.page-head {
  margin: 0;
}
.line {
  display: flex;
  gap: 12px;
  align-items: start;
}
form.line > .v-btn {
  margin-top: 6px;
}
.acts {
  text-align: right;
  white-space: nowrap;
}
.session {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 160px 180px 96px;
  gap: 12px;
  align-items: center;
  min-height: 34px;
  border-top: 1px solid rgb(var(--v-theme-rule));
}
@media (max-width: 700px) {
  .line {
    flex-wrap: wrap;
  }
  .line > .v-input {
    flex: 1 1 100%;
  }
  .session {
    grid-template-columns: 1fr auto;
  }
  .people thead {
    display: none;
  }
  .people tr,
  .people td {
    display: block;
    height: auto !important;
    border-bottom: 0 !important;
  }
  .people tr {
    padding: 8px 0;
    border-top: 1px solid rgb(var(--v-theme-rule));
  }
  .people .acts {
    text-align: left;
    white-space: normal;
    margin-left: -12px;
  }
}
</style>
