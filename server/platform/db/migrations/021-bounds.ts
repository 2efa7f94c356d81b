/** Bounds on what strangers and clients may do; a yes stands once; visits once per browser and day. */
import { TABLE } from './table';

export const up = [
  `CREATE TABLE IF NOT EXISTS sign_in_guess (
    id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    account CHAR(64) CHARACTER SET ascii NOT NULL,
    network VARCHAR(64) CHARACTER SET ascii NOT NULL,
    at DATETIME(3) NOT NULL,
    KEY by_account (account, at)
  ) ${TABLE}`,
  `CREATE TABLE IF NOT EXISTS edition_pdf (
    edition_id INT UNSIGNED NOT NULL,
    contact_id INT UNSIGNED NOT NULL,
    made_at DATETIME(3) NOT NULL,
    data LONGBLOB NOT NULL,
    PRIMARY KEY (edition_id, contact_id),
    CONSTRAINT pdf_of FOREIGN KEY (edition_id) REFERENCES report_edition (id) ON DELETE CASCADE
  ) ${TABLE}`,
  'ALTER TABLE share_link ADD COLUMN IF NOT EXISTS pdfs_on DATE NULL, ADD COLUMN IF NOT EXISTS pdfs INT UNSIGNED NOT NULL DEFAULT 0',
  'ALTER TABLE share_visit ADD COLUMN IF NOT EXISTS day DATE NULL',
  'UPDATE share_visit SET day = DATE(at) WHERE day IS NULL',
  'ALTER TABLE share_visit MODIFY COLUMN day DATE NOT NULL',
  'ALTER TABLE share_visit DROP INDEX IF EXISTS one_key',
  'ALTER TABLE share_visit ADD UNIQUE INDEX IF NOT EXISTS one_a_day (key_sha256, day)',
  'ALTER TABLE share_visit ADD INDEX IF NOT EXISTS by_link (link_id, day)',
  'ALTER TABLE approval ADD COLUMN IF NOT EXISTS standing_key VARCHAR(40) CHARACTER SET ascii NULL',
  // of a yes that was stored several times the newest stays
  `UPDATE approval older JOIN approval newer
      ON newer.site_id = older.site_id AND newer.contact_id = older.contact_id
        AND newer.audit_id = older.audit_id AND newer.id > older.id AND newer.withdrawn_at IS NULL
    SET older.withdrawn_at = newer.at, older.withdrawn_by = 'Armband',
      older.withdrawn_reason = 'The same yes was stored twice.'
    WHERE older.withdrawn_at IS NULL`,
  `UPDATE approval SET standing_key = CONCAT(contact_id, ' ', audit_id)
    WHERE withdrawn_at IS NULL AND contact_id IS NOT NULL`,
  'ALTER TABLE approval ADD UNIQUE INDEX IF NOT EXISTS one_yes (standing_key)',
];
