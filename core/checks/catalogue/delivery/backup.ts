import { defineManualCheck } from '#core/checks/kit/check';

export const backup = defineManualCheck({
  id: 'delivery.backup',
  title: 'Backup is recent and can be restored',
  fault: 'Backup is missing, old or cannot be restored',
  severity: 'major',
  situations: ['staging', 'live'],
  source: 'common practice',
  attestedForDays: 7,
  why: 'A backup that nobody has ever restored is a hope.',
  recipe({ profile }) {
    const how =
      'Make a backup at the host, note where it lies and how long it is kept, and look that the way to restore it is known.';
    return { steps: profile.backups ? `${how} ${profile.name} keeps backups: ${profile.backups}.` : how };
  },
});
