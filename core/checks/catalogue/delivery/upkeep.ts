import { defineManualCheck } from '#core/checks/kit/check';

export const upkeep = defineManualCheck({
  id: 'delivery.upkeep',
  title: 'Monthly upkeep was done',
  fault: 'Monthly upkeep was not done',
  severity: 'major',
  situations: ['live'],
  source: 'common practice',
  attestedForDays: 31,
  why: 'Sites age while nobody looks: updates wait, jobs stop, disks fill.',
  how: 'Updates done, scheduled jobs run, the server’s fault log clean, storage with room. Attest with what was done.',
});
