import { TABLE } from './table';

/** What subscribers have to do about events that are through. */
export const up = [
  `CREATE TABLE IF NOT EXISTS event_delivery (
    id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    subscriber VARCHAR(60) NOT NULL,
    name VARCHAR(60) NOT NULL,
    data MEDIUMTEXT NOT NULL,
    attempts INT UNSIGNED NOT NULL DEFAULT 0,
    run_after DATETIME(3) NOT NULL,
    KEY event_delivery_due (run_after, id)
  ) ${TABLE}`,
];
