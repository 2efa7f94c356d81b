<script setup lang="ts">
definePageMeta({ layout: 'plain' });
useHead({ title: 'Sign in – Armband' });
const email = ref('');
const password = ref('');
const missing = ref('');
const route = useRoute();
const {
  run: signIn,
  busy,
  fault: refused,
} = useAction(
  async () => {
    await api('/api/sign-in', {
      method: 'POST',
      body: { email: email.value.trim(), password: password.value },
    });
    const to = String(route.query.to ?? '/');
    await navigateTo(/^\/(?!\/)/.test(to) ? to : '/');
  },
  { inPlace: true },
);
const fault = computed(() => missing.value || refused.value);
function submit(): void {
  missing.value = email.value.trim() && password.value ? '' : 'Give your mail address and password.';
  if (!missing.value) void signIn();
}
// at once: Vuetify's autofocus comes late, and would take what is typed into the next field
const mail = useTemplateRef<{ focus: () => void }>('mail');
onMounted(() => mail.value?.focus());
</script>

<template>
  <div class="door">
    <form class="sheet" novalidate @submit.prevent="submit">
      <svg class="sign" viewBox="0 0 320 22" aria-hidden="true" preserveAspectRatio="none">
        <path d="M0 0h58v22H0zM61 0h36v22H61zM100 0h44v22h-44z" class="cloth" />
        <path d="M147 22V12l6-11 6 11 6-11 6 11 6-11 6 11v10z" class="torn" />
        <path d="M186 0h30v22h-30zM219 0h20v22h-20zM242 0h23v22h-23z" class="cloth" />
        <path d="M268.6 .6h50.8v20.8h-50.8z" class="outline" />
      </svg>
      <h1>Armband</h1>
      <p class="faint">
        Look at every site before and after its launch, and keep each fault until it is gone.
      </p>
      <v-text-field ref="mail" v-model="email" label="Mail address" type="email" autocomplete="username" />
      <v-text-field v-model="password" label="Password" type="password" autocomplete="current-password" />
      <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
      <v-btn type="submit" color="primary" variant="flat" block :loading="busy">Sign in</v-btn>
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
.sign {
  width: 100%;
  height: 14px;
}
.cloth {
  fill: rgb(var(--v-theme-primary));
}
.torn {
  fill: rgb(var(--v-theme-error));
}
.outline {
  fill: none;
  stroke: rgb(var(--v-theme-primary));
  stroke-width: 1.2;
}
</style>
