/** When an intended text was first seen is kept by environment: what was seen on staging was not yet seen live. */
import { TABLE } from './table';

export const up: string[] = [
  `CREATE TABLE IF NOT EXISTS intended_seen (
    text_id INT UNSIGNED NOT NULL,
    environment_id INT UNSIGNED NOT NULL,
    at DATETIME(3) NOT NULL,
    PRIMARY KEY (text_id, environment_id),
    CONSTRAINT intended_seen_text FOREIGN KEY (text_id) REFERENCES intended_text (id) ON DELETE CASCADE,
    CONSTRAINT intended_seen_in FOREIGN KEY (environment_id) REFERENCES environment (id) ON DELETE CASCADE
  ) ${TABLE}`,
  // where a site has several environments nobody knows in which it was seen: the next audit says
  `INSERT INTO intended_seen (text_id, environment_id, at)
    SELECT t.id, e.id, t.seen_at FROM intended_text t JOIN environment e ON e.site_id = t.site_id
    WHERE t.seen_at IS NOT NULL
      AND (SELECT COUNT(*) FROM environment o WHERE o.site_id = t.site_id) = 1`,
  'ALTER TABLE intended_text DROP COLUMN IF EXISTS seen_at',
];
