/** One clock for all processes, one store for files, who owns the agency's account, and what is audited when. */
import { TABLE } from './table';

export const up: string[] = [
  // whoever is there keeps what they may do
  'ALTER TABLE user ADD COLUMN IF NOT EXISTS owner TINYINT(1) NOT NULL DEFAULT 1',
  'ALTER TABLE user ALTER COLUMN owner SET DEFAULT 0',
  `CREATE TABLE IF NOT EXISTS clock (
    id TINYINT UNSIGNED PRIMARY KEY,
    real_at DATETIME(3) NOT NULL,
    shown_at DATETIME(3) NOT NULL,
    rate DOUBLE NOT NULL
  ) ${TABLE}`,
  'RENAME TABLE IF EXISTS attachment TO file',
  `ALTER TABLE file
    ADD COLUMN IF NOT EXISTS site_id INT UNSIGNED NULL,
    ADD COLUMN IF NOT EXISTS stored VARCHAR(10) NOT NULL DEFAULT 'database',
    ADD KEY IF NOT EXISTS file_of_site (site_id)`,
  'UPDATE file f JOIN environment e ON e.id = f.environment_id SET f.site_id = e.site_id',
  `CREATE TABLE IF NOT EXISTS file_content (
    file_id INT UNSIGNED PRIMARY KEY,
    data LONGBLOB NOT NULL,
    CONSTRAINT file_content_of FOREIGN KEY (file_id) REFERENCES file (id) ON DELETE CASCADE
  ) ${TABLE}`,
  'INSERT INTO file_content (file_id, data) SELECT id, data FROM file',
  'ALTER TABLE file DROP COLUMN IF EXISTS data',
  `CREATE TABLE IF NOT EXISTS schedule (
    id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    name VARCHAR(120) NOT NULL,
    of_kind VARCHAR(12) NOT NULL,
    of_target VARCHAR(40) NOT NULL,
    parts VARCHAR(80) NOT NULL,
    checklist_id INT UNSIGNED NULL,
    every VARCHAR(8) NOT NULL,
    weekday TINYINT UNSIGNED NOT NULL,
    from_time CHAR(5) NOT NULL,
    to_time CHAR(5) NOT NULL,
    not_from CHAR(5) NULL,
    not_to CHAR(5) NULL,
    time_zone VARCHAR(60) NOT NULL,
    paused_until DATE NULL,
    is_on TINYINT(1) NOT NULL DEFAULT 1,
    built_in TINYINT(1) NOT NULL DEFAULT 0,
    created_by VARCHAR(120) NOT NULL,
    UNIQUE KEY schedule_name (name),
    CONSTRAINT schedule_checklist FOREIGN KEY (checklist_id) REFERENCES checklist (id) ON DELETE SET NULL
  ) ${TABLE}`,
  `CREATE TABLE IF NOT EXISTS planned_audit (
    id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    schedule_id INT UNSIGNED NOT NULL,
    environment_id INT UNSIGNED NOT NULL,
    night DATE NOT NULL,
    run_at DATETIME(3) NOT NULL,
    state VARCHAR(10) NOT NULL,
    audit_id INT UNSIGNED NULL,
    reason VARCHAR(300) NULL,
    UNIQUE KEY planned_once (schedule_id, environment_id, night),
    KEY planned_next (state, run_at),
    KEY planned_audit_of (audit_id),
    CONSTRAINT planned_schedule FOREIGN KEY (schedule_id) REFERENCES schedule (id) ON DELETE CASCADE,
    CONSTRAINT planned_environment FOREIGN KEY (environment_id) REFERENCES environment (id) ON DELETE CASCADE
  ) ${TABLE}`,
  `CREATE TABLE IF NOT EXISTS news (
    id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    kind VARCHAR(20) NOT NULL,
    cause VARCHAR(200) NOT NULL,
    environment_id INT UNSIGNED NOT NULL,
    audit_id INT UNSIGNED NOT NULL,
    check_id VARCHAR(80) NOT NULL,
    title VARCHAR(200) NOT NULL,
    text VARCHAR(400) NOT NULL,
    at DATETIME(3) NOT NULL,
    told TINYINT(1) NOT NULL DEFAULT 0,
    UNIQUE KEY news_once (audit_id, kind, check_id),
    KEY news_untold (told, at),
    CONSTRAINT news_environment FOREIGN KEY (environment_id) REFERENCES environment (id) ON DELETE CASCADE
  ) ${TABLE}`,
  `ALTER TABLE audit
    ADD COLUMN IF NOT EXISTS scope TEXT NULL,
    ADD COLUMN IF NOT EXISTS base_audit_id INT UNSIGNED NULL,
    ADD COLUMN IF NOT EXISTS took_ms INT UNSIGNED NULL`,
];
