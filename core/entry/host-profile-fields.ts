/** The form of a host profile. */
import type { FieldGroup } from './field-text';

export const PROFILE_GROUPS: readonly FieldGroup[] = [
  {
    title: 'The product',
    fields: [
      { field: 'name', label: 'Name', kind: 'text' },
      {
        field: 'issuer',
        label: 'Issuer of its certificates',
        kind: 'text',
        placeholder: 'ca.host.example',
        hint: 'as CAA records name it',
      },
      {
        field: 'sharedSuffixes',
        label: 'Shared suffixes',
        kind: 'list',
        hint: 'domains its customers share',
      },
      { field: 'backups', label: 'Backup habit', kind: 'text', placeholder: 'each night, kept for 14 days' },
      {
        field: 'plans',
        label: 'Plans and their features, smallest first',
        kind: 'plans',
        placeholder: 'Bulb: domain, forms, shop',
        hint: 'one a line',
        wide: true,
      },
      { field: 'notes', label: 'Notes', kind: 'long', wide: true },
    ],
  },
  {
    title: 'What it imposes',
    fields: [
      { field: 'icons.required', label: 'Required icon sizes, px', kind: 'numbers', placeholder: '48' },
      {
        field: 'icons.recommended',
        label: 'Recommended icon sizes, px',
        kind: 'numbers',
        placeholder: '240',
      },
      { field: 'icons.touch', label: 'Touch icon, px', kind: 'number' },
      { field: 'descriptionLimit', label: 'Longest description, characters', kind: 'number' },
      { field: 'sharePictureBytes', label: 'Largest share picture, bytes', kind: 'number' },
      {
        field: 'records',
        label: 'Records to set',
        kind: 'records',
        placeholder: '{domain} A 192.0.2.10',
        hint: '{domain}, {host} and {www} become the site’s own names',
        wide: true,
      },
      {
        field: 'addressRanges',
        label: 'Ranges of its addresses',
        kind: 'list',
        placeholder: '192.0.2.0/24',
        hint: 'where they vary: any address in one of them is as good as the record’s',
        wide: true,
      },
    ],
  },
  {
    title: 'Environments before the live one',
    fields: [
      {
        field: 'stagingHostPattern',
        label: 'Staging host pattern',
        kind: 'text',
        placeholder: '*.draft.host.example',
        hint: '* stands for the part that varies',
      },
      { field: 'stagingLifetime.firstDays', label: 'First span, days', kind: 'number' },
      { field: 'stagingLifetime.renewalDays', label: 'Renewed by a change for, days', kind: 'number' },
      { field: 'stagingLifetime.capDays', label: 'At most, days', kind: 'number' },
    ],
  },
  {
    title: 'What it leaves behind',
    fields: [
      { field: 'defaults.titles', label: 'Default titles', kind: 'lines' },
      { field: 'defaults.taglines', label: 'Default taglines', kind: 'lines' },
      { field: 'defaults.texts', label: 'Sample texts', kind: 'lines' },
      { field: 'defaults.authors', label: 'Default authors', kind: 'lines' },
      { field: 'defaults.formSenders', label: 'Default form senders and recipients', kind: 'lines' },
      { field: 'defaults.iconHashes', label: 'Default icons, SHA-256', kind: 'lines' },
      { field: 'badge', label: 'Marks of its badge', kind: 'lines' },
    ],
  },
  {
    title: 'Marks of its pages',
    fields: [
      { field: 'marks.parking', label: 'Parking page', kind: 'lines' },
      { field: 'marks.unknownName', label: 'Page for an unknown name', kind: 'lines' },
      { field: 'marks.holding', label: 'Holding page', kind: 'lines' },
      { field: 'marks.samplePage', label: 'Sample page', kind: 'lines' },
      { field: 'marks.signIn', label: 'Sign-in page', kind: 'lines' },
      { field: 'marks.postList', label: 'List of posts', kind: 'lines' },
    ],
  },
  {
    title: 'Manual checks',
    fields: [
      {
        field: 'handChecks',
        label: 'Manual checks it calls for',
        kind: 'lines',
        placeholder: 'delivery.upkeep',
        hint: 'ids of checks; asked even where the checklist leaves them out',
        wide: true,
      },
    ],
  },
];
