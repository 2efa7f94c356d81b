/** How to get into a place that is not open, sealed; and when it was set up, last changed, and ends. */
export const up: string[] = [
  'ALTER TABLE environment ADD COLUMN IF NOT EXISTS way_in_sealed VARCHAR(2000) NULL AFTER way_in',
  'ALTER TABLE environment ADD COLUMN IF NOT EXISTS set_up_on DATE NULL, ADD COLUMN IF NOT EXISTS changed_on DATE NULL, ADD COLUMN IF NOT EXISTS ends_on DATE NULL',
];
