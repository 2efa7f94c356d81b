/** The newest build of a site, as somebody uploaded it: names, sizes and digests, with the words of its pages. */
import { TABLE } from './table';

export const up: string[] = [
  `CREATE TABLE IF NOT EXISTS site_build (
    site_id INT UNSIGNED PRIMARY KEY,
    name VARCHAR(200) NOT NULL,
    files INT UNSIGNED NOT NULL,
    bytes BIGINT UNSIGNED NOT NULL,
    by_name VARCHAR(120) NOT NULL,
    at DATETIME(3) NOT NULL,
    data LONGBLOB NOT NULL,
    CONSTRAINT build_of FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
  ) ${TABLE}`,
];
