import { expect, it } from 'vitest';
import { fullChecklist } from '#core/checks/engine/checklist';
import { shareLimit } from './share-limit';

it.each([
  ['the host’s', { name: 'A', sharePictureBytes: 1_500_000 }, undefined, { bytes: 1_500_000, of: 'host' }],
  ['the checklist’s', { name: 'A' }, 500_000, { bytes: 500_000, of: 'checklist' }],
  ['the usual one', undefined, undefined, { bytes: 2_000_000, of: 'checklist' }],
])('%s limit of a share picture', (_, profile, bytes, limit) => {
  const checklist = fullChecklist();
  const item = checklist.items.find((i) => i.check === 'sharing.image-weight')!;
  if (bytes) item.parameters = { ...item.parameters, bytes };
  expect(shareLimit(profile, checklist)).toEqual(limit);
  if (!bytes) expect(shareLimit(profile, { items: [] })).toEqual(limit);
});
