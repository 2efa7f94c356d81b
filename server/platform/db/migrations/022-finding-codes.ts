/** Findings carry codes: what was accepted is kept by them, and lists know in which words they were stored. */
export const up = [
  'ALTER TABLE acceptance ADD COLUMN IF NOT EXISTS by_code TINYINT(1) NOT NULL DEFAULT 0',
  `ALTER TABLE finding
    ADD COLUMN IF NOT EXISTS code VARCHAR(80) CHARACTER SET ascii NOT NULL DEFAULT '',
    ADD COLUMN IF NOT EXISTS fault VARCHAR(200) NOT NULL DEFAULT '',
    ADD COLUMN IF NOT EXISTS wording CHAR(8) CHARACTER SET ascii NOT NULL DEFAULT '',
    ADD KEY IF NOT EXISTS finding_wording (wording, environment_id)`,
];
