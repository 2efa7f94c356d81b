<script setup lang="ts">
import { passwordFault, SHORTEST_PASSWORD } from '#core/entry/password';

/** Choosing a password by a link that works once. What the link says stands behind the #, so that no log has it. */
definePageMeta({ layout: 'plain' });
useHead({ title: 'Choose a password – Armband' });
const wanted = ref('');
const again = ref('');
const wrong = ref('');
const token = ref('');
onMounted(() => {
  token.value = location.hash.slice(1);
});

const {
  run: choose,
  busy,
  fault: refused,
} = useAction(
  async () => {
    await api('/api/password-link', { method: 'POST', body: { token: token.value, wanted: wanted.value } });
    useNotes().say('Your password is set. Sign in with it.');
    await navigateTo('/sign-in');
  },
  { inPlace: true },
);
const fault = computed(() => wrong.value || refused.value);
function submit(): void {
  wrong.value = passwordFault(wanted.value) ?? '';
  if (wrong.value) return;
  if (wanted.value !== again.value) wrong.value = 'The two are not the same.';
  else if (!token.value) wrong.value = 'This address lacks the end of the link. Open the link as you got it.';
  if (!wrong.value) void choose();
}
</script>

<template>
  <div class="door">
    <form class="sheet" novalidate @submit.prevent="submit">
      <h1>Choose a password</h1>
      <p class="faint">
        At least {{ SHORTEST_PASSWORD }} characters; several words are easier to keep than signs.
      </p>
      <v-text-field v-model="wanted" label="Password" type="password" autocomplete="new-password" autofocus />
      <v-text-field v-model="again" label="The same again" type="password" autocomplete="new-password" />
      <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
      <v-btn type="submit" color="primary" variant="flat" block :loading="busy">Set it</v-btn>
    </form>
  </div>
</template>

<style scoped>
.door {
  min-height: 100vh;
  display: grid;
  place-items: center;
  padding: 16px;
}
form {
  width: min(380px, 100%);
  padding: 28px;
  display: grid;
  gap: 14px;
}
</style>
