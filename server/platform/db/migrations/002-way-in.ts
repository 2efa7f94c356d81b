/** How to get into a place that is not open, sealed; and when it was set up, last changed, and ends. */
export const up: string[] = [
  'ALTER TABLE environment ADD COLUMN way_in_sealed VARCHAR(2000) NULL AFTER way_in',
  'ALTER TABLE environment ADD COLUMN set_up_on DATE NULL, ADD COLUMN changed_on DATE NULL, ADD COLUMN ends_on DATE NULL',
];
