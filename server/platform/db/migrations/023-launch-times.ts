/**
 * When a site was really launched, what belonged to its launch then, what proved a step, what was asked on request,
 * what shares its address, and every fault that a watch has seen.
 */
export const up = [
  `ALTER TABLE site
    ADD COLUMN IF NOT EXISTS launched_at DATETIME(3) NULL,
    ADD COLUMN IF NOT EXISTS shares MEDIUMTEXT NULL`,
  `ALTER TABLE launch
    ADD COLUMN IF NOT EXISTS conditions MEDIUMTEXT NULL,
    ADD COLUMN IF NOT EXISTS one_page TINYINT(1) NOT NULL DEFAULT 0,
    ADD COLUMN IF NOT EXISTS asked MEDIUMTEXT NULL`,
  'ALTER TABLE launch_step ADD COLUMN IF NOT EXISTS proven_by MEDIUMTEXT NULL',
  `UPDATE watch SET standing = JSON_REMOVE(
      JSON_SET(standing, '$.reasons', IF(JSON_VALUE(standing, '$.reason') IS NULL, JSON_ARRAY(),
        JSON_ARRAY(JSON_VALUE(standing, '$.reason')))), '$.reason')
    WHERE standing IS NOT NULL AND JSON_EXISTS(standing, '$.reasons') = 0`,
];
