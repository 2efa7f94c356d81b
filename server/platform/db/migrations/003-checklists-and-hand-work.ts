/**
 * Checklists of the agency's own and who uses them, attestations one by one with files, verdicts over time,
 * messages to people.
 */
import { TABLE } from './table';

export const up: string[] = [
  `CREATE TABLE IF NOT EXISTS checklist_assignment (id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY, checklist_id INT UNSIGNED NOT NULL, kind VARCHAR(8) NOT NULL, target VARCHAR(200) NOT NULL, UNIQUE KEY checklist_assignment_of (kind, target), CONSTRAINT checklist_assignment_list FOREIGN KEY (checklist_id) REFERENCES checklist (id) ON DELETE CASCADE) ${TABLE}`,
  "ALTER TABLE checklist_version ADD COLUMN IF NOT EXISTS saved_by VARCHAR(120) NOT NULL DEFAULT 'Armband'",
  "ALTER TABLE host_profile ADD COLUMN IF NOT EXISTS saved_by VARCHAR(120) NOT NULL DEFAULT ''",
  `CREATE TABLE IF NOT EXISTS attachment (id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY, environment_id INT UNSIGNED NOT NULL, name VARCHAR(200) NOT NULL, type VARCHAR(60) NOT NULL, bytes INT UNSIGNED NOT NULL, by_name VARCHAR(120) NOT NULL, at DATETIME(3) NOT NULL, data LONGBLOB NOT NULL, KEY attachment_of (environment_id), CONSTRAINT attachment_environment FOREIGN KEY (environment_id) REFERENCES environment (id) ON DELETE CASCADE) ${TABLE}`,
  'ALTER TABLE attestation ADD COLUMN IF NOT EXISTS place VARCHAR(300) NULL, ADD COLUMN IF NOT EXISTS does_not_apply TINYINT(1) NOT NULL DEFAULT 0, ADD COLUMN IF NOT EXISTS good_while VARCHAR(12) NULL, ADD COLUMN IF NOT EXISTS attachment_id INT UNSIGNED NULL, ADD COLUMN IF NOT EXISTS by_id INT UNSIGNED NULL, ADD COLUMN IF NOT EXISTS told_at DATETIME(3) NULL, ADD CONSTRAINT attestation_file FOREIGN KEY IF NOT EXISTS (attachment_id) REFERENCES attachment (id) ON DELETE SET NULL',
  'ALTER TABLE acceptance ADD COLUMN IF NOT EXISTS told_at DATETIME(3) NULL, ADD KEY IF NOT EXISTS acceptance_end (until)',
  `CREATE TABLE IF NOT EXISTS verdict (id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY, audit_id INT UNSIGNED NOT NULL, environment_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL, cause VARCHAR(16) NOT NULL, by_name VARCHAR(120) NOT NULL, situation VARCHAR(8) NOT NULL, brief_version INT UNSIGNED NULL, checklist_version_id INT UNSIGNED NULL, profile_version INT UNSIGNED NULL, catalogue VARCHAR(16) NOT NULL, evidence_version INT UNSIGNED NOT NULL, score TINYINT UNSIGNED NULL, coverage TINYINT UNSIGNED NULL, gate VARCHAR(10) NOT NULL, result MEDIUMTEXT NOT NULL, KEY verdict_of (environment_id, id), CONSTRAINT verdict_audit FOREIGN KEY (audit_id) REFERENCES audit (id) ON DELETE CASCADE, CONSTRAINT verdict_checklist FOREIGN KEY (checklist_version_id) REFERENCES checklist_version (id) ON DELETE SET NULL) ${TABLE}`,
  `CREATE TABLE IF NOT EXISTS notification (id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY, user_id INT UNSIGNED NOT NULL, text VARCHAR(600) NOT NULL, link VARCHAR(300) NOT NULL, at DATETIME(3) NOT NULL, read_at DATETIME(3) NULL, KEY notification_of (user_id, id), CONSTRAINT notification_user FOREIGN KEY (user_id) REFERENCES user (id) ON DELETE CASCADE) ${TABLE}`,
];
