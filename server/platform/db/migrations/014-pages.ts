/** Pages as a table, made once from what an audit saw. */
import { TABLE } from './table';

export const up: string[] = [
  `CREATE TABLE audit_pages (
    audit_id INT UNSIGNED PRIMARY KEY,
    verdict_id INT UNSIGNED NOT NULL,
    data LONGBLOB NOT NULL,
    CONSTRAINT audit_pages_of FOREIGN KEY (audit_id) REFERENCES audit (id) ON DELETE CASCADE
  ) ${TABLE}`,
];
