/**
 * What lists of fixes say of a finding stands in columns of its own: they are sorted and added up over all
 * sites. Filled when stored evidence is re-evaluated after the update.
 */
export const up: string[] = [
  `ALTER TABLE finding
    ADD COLUMN IF NOT EXISTS title VARCHAR(200) NOT NULL DEFAULT '',
    ADD COLUMN IF NOT EXISTS scope VARCHAR(8) NOT NULL DEFAULT '',
    ADD COLUMN IF NOT EXISTS found VARCHAR(300) NULL,
    ADD COLUMN IF NOT EXISTS failing INT UNSIGNED NOT NULL DEFAULT 0,
    ADD COLUMN IF NOT EXISTS lost DOUBLE NOT NULL DEFAULT 0,
    ADD KEY IF NOT EXISTS finding_of_check (check_id, environment_id)`,
];
