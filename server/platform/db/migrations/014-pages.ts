/** Pages as a table, made once from what an audit saw; and the texts that are intended for them. */
import { TABLE } from './table';

export const up: string[] = [
  `CREATE TABLE IF NOT EXISTS audit_pages (
    audit_id INT UNSIGNED PRIMARY KEY,
    verdict_id INT UNSIGNED NOT NULL,
    data LONGBLOB NOT NULL,
    CONSTRAINT audit_pages_of FOREIGN KEY (audit_id) REFERENCES audit (id) ON DELETE CASCADE
  ) ${TABLE}`,
  // paths are told apart by every letter
  `CREATE TABLE IF NOT EXISTS intended_text (
    id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    site_id INT UNSIGNED NOT NULL,
    path VARCHAR(700) COLLATE utf8mb4_bin NOT NULL,
    version INT UNSIGNED NOT NULL,
    newest TINYINT(1) NULL,
    title VARCHAR(500) NULL,
    description VARCHAR(1000) NULL,
    saved_by VARCHAR(120) NOT NULL,
    saved_at DATETIME(3) NOT NULL,
    seen_at DATETIME(3) NULL,
    UNIQUE KEY intended_version (site_id, path, version),
    KEY intended_newest (site_id, newest),
    CONSTRAINT intended_text_of FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
  ) ${TABLE}`,
];
