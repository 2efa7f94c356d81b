/** An audit keeps which address it looked at, since an environment's address can change. */
export const up: string[] = [
  'ALTER TABLE audit ADD COLUMN IF NOT EXISTS url VARCHAR(2000) NULL AFTER environment_id',
];
