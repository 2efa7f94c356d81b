/** The share picture and the icon of a site, as they were given, and how its files are made from them. */
import { TABLE } from './table';

export const up: string[] = [
  `CREATE TABLE IF NOT EXISTS site_pictures (
    site_id INT UNSIGNED PRIMARY KEY,
    settings MEDIUMTEXT NOT NULL,
    share_file_id INT UNSIGNED NULL,
    share_look MEDIUMTEXT NULL,
    icon_file_id INT UNSIGNED NULL,
    icon_look MEDIUMTEXT NULL,
    saved_by VARCHAR(120) NOT NULL,
    saved_at DATETIME(3) NOT NULL,
    CONSTRAINT pictures_of FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
    CONSTRAINT pictures_share FOREIGN KEY (share_file_id) REFERENCES file (id) ON DELETE SET NULL,
    CONSTRAINT pictures_icon FOREIGN KEY (icon_file_id) REFERENCES file (id) ON DELETE SET NULL
  ) ${TABLE}`,
];
