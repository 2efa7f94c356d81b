/** People can be added and removed, their sessions ended; a client has a site of a name once. */
import { TABLE } from './table';

export const up: string[] = [
  'ALTER TABLE user ADD COLUMN IF NOT EXISTS session_version INT UNSIGNED NOT NULL DEFAULT 1 AFTER password_hash, ADD COLUMN IF NOT EXISTS removed_at DATETIME(3) NULL',
  `CREATE TABLE IF NOT EXISTS session (
    id CHAR(32) NOT NULL PRIMARY KEY,
    user_id INT UNSIGNED NOT NULL,
    version INT UNSIGNED NOT NULL,
    agent VARCHAR(300) NOT NULL,
    address VARCHAR(60) NOT NULL,
    created_at DATETIME(3) NOT NULL,
    seen_at DATETIME(3) NOT NULL,
    KEY session_user (user_id),
    KEY session_seen (seen_at),
    CONSTRAINT session_of_user FOREIGN KEY (user_id) REFERENCES user (id) ON DELETE CASCADE
  ) ${TABLE}`,
  `CREATE TABLE IF NOT EXISTS password_link (
    digest CHAR(64) NOT NULL PRIMARY KEY,
    user_id INT UNSIGNED NOT NULL,
    made_by VARCHAR(120) NOT NULL,
    until DATETIME(3) NOT NULL,
    CONSTRAINT password_link_of_user FOREIGN KEY (user_id) REFERENCES user (id) ON DELETE CASCADE
  ) ${TABLE}`,
  // those that two submits at once have made carry their number from now on
  `UPDATE site s JOIN site first ON first.client_id = s.client_id AND first.name = s.name AND first.id < s.id
     SET s.name = CONCAT(LEFT(s.name, 180), ' (', s.id, ')')`,
  'ALTER TABLE site ADD UNIQUE KEY IF NOT EXISTS site_name_of_client (client_id, name)',
];
