/**
 * Long work, kept where it survives whoever does it: what waits, who does what until when, what each item gave. And
 * what several processes must agree on: what was done last when, what has changed, guesses at passwords, requests
 * to one host.
 */
import { TABLE } from './table';

export const up: string[] = [
  `CREATE TABLE IF NOT EXISTS job (
    id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    name VARCHAR(40) NOT NULL,
    lane VARCHAR(8) NOT NULL,
    priority TINYINT UNSIGNED NOT NULL,
    title VARCHAR(200) NOT NULL,
    started_by VARCHAR(120) NOT NULL,
    payload MEDIUMTEXT NOT NULL,
    only_key VARCHAR(120) NULL,
    state VARCHAR(8) NOT NULL,
    total INT UNSIGNED NOT NULL DEFAULT 0,
    done INT UNSIGNED NOT NULL DEFAULT 0,
    failed INT UNSIGNED NOT NULL DEFAULT 0,
    progress TEXT NULL,
    claims INT UNSIGNED NOT NULL DEFAULT 0,
    attempts INT UNSIGNED NOT NULL DEFAULT 0,
    losses INT UNSIGNED NOT NULL DEFAULT 0,
    run_after DATETIME(3) NOT NULL,
    worker VARCHAR(80) NULL,
    lease_until DATETIME(3) NULL,
    stop_asked TINYINT(1) NOT NULL DEFAULT 0,
    error TEXT NULL,
    result MEDIUMTEXT NULL,
    created_at DATETIME(3) NOT NULL,
    started_at DATETIME(3) NULL,
    ended_at DATETIME(3) NULL,
    UNIQUE KEY job_only (only_key),
    KEY job_next (state, lane, priority, id),
    KEY job_of_worker (worker, state),
    KEY job_ended (ended_at)
  ) ${TABLE}`,
  `CREATE TABLE IF NOT EXISTS job_item (
    job_id INT UNSIGNED NOT NULL,
    item INT UNSIGNED NOT NULL,
    error VARCHAR(600) NULL,
    data MEDIUMTEXT NULL,
    PRIMARY KEY (job_id, item),
    CONSTRAINT job_item_of FOREIGN KEY (job_id) REFERENCES job (id) ON DELETE CASCADE
  ) ${TABLE}`,
  `ALTER TABLE audit
    ADD COLUMN IF NOT EXISTS job_id INT UNSIGNED NULL,
    ADD COLUMN IF NOT EXISTS restarts INT UNSIGNED NOT NULL DEFAULT 0,
    ADD KEY IF NOT EXISTS audit_job (job_id)`,
  `CREATE TABLE IF NOT EXISTS timer (
    name VARCHAR(40) PRIMARY KEY,
    at DATETIME(3) NOT NULL
  ) ${TABLE}`,
  `CREATE TABLE IF NOT EXISTS change_event (
    id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    origin VARCHAR(80) NOT NULL,
    changes MEDIUMTEXT NOT NULL,
    at DATETIME(3) NOT NULL,
    KEY change_event_at (at)
  ) ${TABLE}`,
  `CREATE TABLE IF NOT EXISTS sign_in_tally (
    name VARCHAR(300) PRIMARY KEY,
    wrong INT UNSIGNED NOT NULL,
    last_at DATETIME(3) NOT NULL,
    KEY sign_in_tally_last (last_at)
  ) ${TABLE}`,
  `CREATE TABLE IF NOT EXISTS host_gate (host VARCHAR(255) PRIMARY KEY) ${TABLE}`,
  `CREATE TABLE IF NOT EXISTS host_permit (
    host VARCHAR(255) NOT NULL,
    holder VARCHAR(80) NOT NULL,
    permits INT UNSIGNED NOT NULL,
    lease_until DATETIME(3) NOT NULL,
    PRIMARY KEY (host, holder),
    KEY host_permit_lease (lease_until)
  ) ${TABLE}`,
];
