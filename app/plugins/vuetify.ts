import { createVuetify } from 'vuetify';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';
import { themes } from '~/theme/colours';

export default defineNuxtPlugin((nuxtApp) => {
  const saved = localStorage.getItem('armband-theme');
  nuxtApp.vueApp.use(
    createVuetify({
      // days are written as the reader's browser has them
      date: { locale: { en: navigator.language } },
      icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
      theme: { defaultTheme: saved === 'light' || saved === 'dark' ? saved : 'system', themes },
      defaults: {
        VBtn: { variant: 'outlined', density: 'comfortable', rounded: '4' },
        VBtnToggle: {
          density: 'compact',
          variant: 'outlined',
          divided: true,
          color: 'primary',
          rounded: '4',
        },
        VTab: { variant: 'text', rounded: '0' },
        VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
        VNumberInput: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
        VTextarea: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
        VSelect: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
        VCombobox: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
        VAutocomplete: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
        VDateInput: {
          variant: 'outlined',
          density: 'compact',
          hideDetails: 'auto',
          prependIcon: '',
          prependInnerIcon: '$calendar',
        },
        VCheckbox: { density: 'compact', hideDetails: true, color: 'primary' },
        VSwitch: { density: 'compact', hideDetails: true, color: 'primary' },
        VCard: { rounded: '4' },
      },
    }),
  );
});
