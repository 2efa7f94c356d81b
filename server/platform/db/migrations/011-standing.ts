/**
 * What the long lists are sorted, filtered and counted by is kept beside the rows: where each site stands, how
 * many stand how, and each fault over all sites. Filled at the start for what is there already.
 */
import { TABLE } from './table';

/** Compared byte by byte, so that a list can go on after any row. */
const KEY = 'VARCHAR(191) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin';
const WORDS = 'TEXT CHARACTER SET ascii COLLATE ascii_bin';
const ROSTER_KEYS = ['by_site', 'by_stage', 'by_score', 'by_gate', 'by_fixes', 'by_audit'];

export const up: string[] = [
  `CREATE TABLE IF NOT EXISTS standing (
    site_id INT UNSIGNED PRIMARY KEY,
    environment_id INT UNSIGNED NULL,
    stage VARCHAR(12) NOT NULL,
    gate VARCHAR(10) NOT NULL,
    open_fixes INT UNSIGNED NOT NULL,
    words ${WORDS} NOT NULL,
    faults MEDIUMTEXT NOT NULL,
    ${ROSTER_KEYS.map((key) => `${key} ${KEY} NOT NULL, KEY standing_${key} (${key}), KEY standing_stage_${key} (stage, ${key})`).join(',\n    ')},
    FULLTEXT KEY standing_words (words),
    CONSTRAINT standing_of FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
  ) ${TABLE}`,
  `CREATE TABLE IF NOT EXISTS standing_count (
    stage VARCHAR(12) NOT NULL,
    gate VARCHAR(10) NOT NULL,
    sites BIGINT NOT NULL,
    PRIMARY KEY (stage, gate)
  ) ${TABLE}`,
  `CREATE TABLE IF NOT EXISTS fault (
    check_id VARCHAR(80) NOT NULL,
    whose VARCHAR(12) NOT NULL,
    title VARCHAR(200) NOT NULL,
    scope VARCHAR(8) NOT NULL,
    sites BIGINT NOT NULL,
    blockers BIGINT NOT NULL,
    majors BIGINT NOT NULL,
    minors BIGINT NOT NULL,
    failing BIGINT NOT NULL,
    lost BIGINT NOT NULL,
    gates BIGINT NOT NULL,
    PRIMARY KEY (whose, check_id)
  ) ${TABLE}`,
  `ALTER TABLE fix
    ADD COLUMN IF NOT EXISTS site_id INT UNSIGNED NOT NULL DEFAULT 0,
    ADD COLUMN IF NOT EXISTS closed TINYINT(1) NOT NULL DEFAULT 0,
    ADD COLUMN IF NOT EXISTS words ${WORDS} NOT NULL DEFAULT '',
    ADD COLUMN IF NOT EXISTS by_worst ${KEY} NOT NULL DEFAULT '',
    ADD COLUMN IF NOT EXISTS by_site ${KEY} NOT NULL DEFAULT '',
    ADD COLUMN IF NOT EXISTS by_person ${KEY} NOT NULL DEFAULT '',
    ADD COLUMN IF NOT EXISTS by_due ${KEY} NOT NULL DEFAULT '',
    ADD KEY IF NOT EXISTS fix_of_site (site_id, closed),
    ADD KEY IF NOT EXISTS fix_worst (closed, by_worst),
    ADD KEY IF NOT EXISTS fix_check_worst (closed, check_id, by_worst),
    ADD KEY IF NOT EXISTS fix_owner_worst (closed, owner_id, by_worst),
    ADD KEY IF NOT EXISTS fix_owner_check_worst (closed, owner_id, check_id, by_worst),
    ADD KEY IF NOT EXISTS fix_site (closed, by_site),
    ADD KEY IF NOT EXISTS fix_owner_site (closed, owner_id, by_site),
    ADD KEY IF NOT EXISTS fix_person (closed, by_person),
    ADD KEY IF NOT EXISTS fix_due (closed, by_due),
    ADD KEY IF NOT EXISTS fix_owner_due (closed, owner_id, by_due)`,
  'ALTER TABLE fix ADD FULLTEXT KEY IF NOT EXISTS fix_words (words)',
  'ALTER TABLE environment ADD COLUMN IF NOT EXISTS open_fixes INT UNSIGNED NOT NULL DEFAULT 0',
  `ALTER TABLE finding
    ADD COLUMN IF NOT EXISTS by_hand TINYINT(1) NOT NULL DEFAULT 0,
    ADD COLUMN IF NOT EXISTS expected VARCHAR(300) NULL,
    ADD COLUMN IF NOT EXISTS places INT UNSIGNED NOT NULL DEFAULT 0`,
  `UPDATE finding SET by_hand = COALESCE(JSON_VALUE(data, '$.byHand') = 'true' OR JSON_VALUE(data, '$.byHand') = '1', 0),
    expected = LEFT(JSON_VALUE(data, '$.expected'), 300), places = COALESCE(JSON_LENGTH(data, '$.places'), 0)`,
  'ALTER TABLE site ADD COLUMN IF NOT EXISTS version INT UNSIGNED NOT NULL DEFAULT 1',
  'ALTER TABLE notification ADD KEY IF NOT EXISTS notification_unread (user_id, read_at, id)',
  `ALTER TABLE audit
    ADD COLUMN IF NOT EXISTS score_before TINYINT UNSIGNED NULL,
    ADD KEY IF NOT EXISTS audit_ended (environment_id, status, id)`,
];
