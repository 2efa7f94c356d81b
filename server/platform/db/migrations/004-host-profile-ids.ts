/**
 * Host profiles are kept by a number, so that another name changes one row; sites and assignments name the
 * number.
 */
import { TABLE } from './table';

export const up: string[] = [
  'RENAME TABLE IF EXISTS host_profile TO host_profile_version',
  `CREATE TABLE IF NOT EXISTS host_profile (id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY, name VARCHAR(200) NOT NULL, UNIQUE KEY host_profile_name (name)) ${TABLE}`,
  'INSERT INTO host_profile (name) SELECT DISTINCT name FROM host_profile_version ORDER BY name',
  // names that sites carried without a profile of that name
  'INSERT IGNORE INTO host_profile (name) SELECT DISTINCT host_profile FROM site WHERE host_profile IS NOT NULL',
  'ALTER TABLE host_profile_version ADD COLUMN IF NOT EXISTS host_profile_id INT UNSIGNED NULL AFTER id',
  'UPDATE host_profile_version v JOIN host_profile p ON p.name = v.name SET v.host_profile_id = p.id',
  'ALTER TABLE host_profile_version DROP KEY IF EXISTS host_profile_version, DROP COLUMN IF EXISTS name, MODIFY host_profile_id INT UNSIGNED NOT NULL',
  'ALTER TABLE host_profile_version ADD UNIQUE KEY IF NOT EXISTS host_profile_version (host_profile_id, version), ADD CONSTRAINT host_profile_version_of FOREIGN KEY IF NOT EXISTS (host_profile_id) REFERENCES host_profile (id) ON DELETE CASCADE',
  "INSERT INTO host_profile_version (host_profile_id, version, data, created_at, saved_by) SELECT p.id, 1, JSON_OBJECT('name', p.name), NOW(3), 'Armband' FROM host_profile p LEFT JOIN host_profile_version v ON v.host_profile_id = p.id WHERE v.id IS NULL",
  'ALTER TABLE site ADD COLUMN IF NOT EXISTS host_profile_id INT UNSIGNED NULL AFTER host_profile',
  'UPDATE site s JOIN host_profile p ON p.name = s.host_profile SET s.host_profile_id = p.id',
  'ALTER TABLE site DROP COLUMN IF EXISTS host_profile, ADD CONSTRAINT site_host_profile FOREIGN KEY IF NOT EXISTS (host_profile_id) REFERENCES host_profile (id)',
  "DELETE a FROM checklist_assignment a LEFT JOIN host_profile p ON p.name = a.target WHERE a.kind = 'host' AND p.id IS NULL",
  "UPDATE checklist_assignment a JOIN host_profile p ON p.name = a.target SET a.target = p.id WHERE a.kind = 'host'",
];
