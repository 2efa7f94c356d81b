/** Filters that a person keeps under a name. */
import { TABLE } from './table';

export const up: string[] = [
  `CREATE TABLE IF NOT EXISTS saved_view (
    id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    user_id INT UNSIGNED NOT NULL,
    screen VARCHAR(20) NOT NULL,
    name VARCHAR(80) NOT NULL,
    query VARCHAR(1000) NOT NULL,
    UNIQUE KEY saved_view_name (user_id, screen, name),
    CONSTRAINT saved_view_of FOREIGN KEY (user_id) REFERENCES user (id) ON DELETE CASCADE
  ) ${TABLE}`,
];
