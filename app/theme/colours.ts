/**
 * The product's colours as Vuetify themes: one quiet colour for cloth that holds, one loud one for cloth that
 * is torn.
 */
const light = {
  background: '#F6F4EF',
  surface: '#FFFFFF',
  'on-background': '#1B2430',
  'on-surface': '#1B2430',
  primary: '#3A3F8F',
  'on-primary': '#FFFFFF',
  error: '#B23A1E',
  'on-error': '#FFFFFF',
  faint: '#5C6470',
  rule: '#D9D4C8',
};
const dark = {
  background: '#14181F',
  surface: '#1C222B',
  'on-background': '#E8E6E0',
  'on-surface': '#E8E6E0',
  primary: '#9AA0F0',
  'on-primary': '#14181F',
  error: '#FF8A6B',
  'on-error': '#14181F',
  faint: '#9AA3AF',
  rule: '#323A45',
};
export const themes = { light: { dark: false, colors: light }, dark: { dark: true, colors: dark } };
