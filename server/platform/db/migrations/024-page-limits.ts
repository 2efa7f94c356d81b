/** How many pages an audit of a site or of a schedule reads at most; null for the usual number. */
export const up = ['site', 'schedule', 'audit'].map(
  (table) => `ALTER TABLE ${table} ADD COLUMN IF NOT EXISTS page_limit INT UNSIGNED NULL`,
);
