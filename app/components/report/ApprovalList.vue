<script setup lang="ts">
import type { ReportShownData } from '~/types';

/** The yeses of a client: to what each was said, and whether it stands. */
defineProps<{ approvals: ReportShownData['approvals'] }>();
const withdrawing = ref(0);
const reason = ref('');
const { run: withdraw, fault } = useAction(
  async (id: number) => {
    await api('/api/approvals/:id/withdraw', {
      params: { id },
      method: 'POST',
      body: { reason: reason.value },
    });
    withdrawing.value = 0;
    reason.value = '';
  },
  { inPlace: true },
);
const SHORT = 12;
</script>

<template>
  <section class="sheet" aria-label="Yes">
    <h2>Yes</h2>
    <p v-if="!approvals.length" class="faint">Nobody has said yes yet.</p>
    <ul>
      <li v-for="a in approvals" :key="a.id" :class="{ gone: a.withdrawn }">
        <p>
          <b>{{ a.by }}</b> said yes to <b>{{ a.environment }}</b>, <TimeAt :iso="a.at" /><template
            v-if="a.withdrawn"
          >
            · taken back by {{ a.withdrawn.by }}, <TimeAt :iso="a.withdrawn.at" />:
            {{ a.withdrawn.reason }}</template
          >
        </p>
        <p v-if="a.note" class="said">{{ a.note }}</p>
        <p class="faint">
          <NuxtLink
            :to="{
              query: { ...$route.query, tab: 'pages', view: undefined, audit: String(a.auditId), at: a.at },
            }"
            >what was shown</NuxtLink
          >
          · content <span class="mono" :title="a.fingerprint">{{ a.fingerprint.slice(0, SHORT) }}</span> ·
          evidence SHA-256
          <span class="mono" :title="a.evidenceSha256">{{ a.evidenceSha256.slice(0, SHORT) }}</span><span
            v-if="a.isUntouched"
            >, unchanged since</span
          ><span v-else class="fray">, not what it was</span>
        </p>
        <form v-if="withdrawing === a.id" class="line" @submit.prevent="withdraw(a.id)">
          <v-text-field v-model="reason" label="Why it does not stand any more" hide-details autofocus />
          <v-btn type="submit" size="small" :disabled="reason.trim().length < 3">Take it back</v-btn>
          <v-btn size="small" variant="text" @click="withdrawing = 0">Cancel</v-btn>
        </form>
        <button v-else-if="!a.withdrawn" type="button" class="link" @click="withdrawing = a.id">
          Take it back …
        </button>
      </li>
    </ul>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  </section>
</template>

<style scoped>
section {
  padding: 14px 16px;
  display: grid;
  gap: 8px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 10px;
}
li {
  border-left: 3px solid rgb(var(--v-theme-primary));
  padding-left: 12px;
  overflow-wrap: anywhere;
}
li.gone {
  border-left-color: rgb(var(--v-theme-rule));
}
p {
  margin: 0;
}
.said {
  white-space: pre-line;
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
}
.link {
  color: rgb(var(--v-theme-primary));
  text-decoration: underline;
  font-size: 13px;
}
</style>
