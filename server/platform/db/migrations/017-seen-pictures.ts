/** Pictures of pages as a browser showed them, each kept once for its environment. */
import { TABLE } from './table';

export const up: string[] = [
  `CREATE TABLE IF NOT EXISTS seen_picture (
    audit_id INT UNSIGNED NOT NULL,
    sha256 CHAR(64) NOT NULL,
    file_id INT UNSIGNED NOT NULL,
    PRIMARY KEY (audit_id, sha256),
    KEY seen_file (file_id),
    CONSTRAINT seen_by FOREIGN KEY (audit_id) REFERENCES audit (id) ON DELETE CASCADE,
    CONSTRAINT seen_in FOREIGN KEY (file_id) REFERENCES file (id) ON DELETE CASCADE
  ) ${TABLE}`,
];
