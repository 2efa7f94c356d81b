/** What the tables call things follows what the screens say. */
const STATES = [
  ['in hand', 'in progress'],
  ['said to be done', 'to verify'],
] as const;

export const up: string[] = [
  ...STATES.flatMap(([before, after]) => [
    `UPDATE fix SET state = '${after}' WHERE state = '${before}'`,
    `UPDATE fix_event SET from_state = '${after}' WHERE from_state = '${before}'`,
    `UPDATE fix_event SET to_state = '${after}' WHERE to_state = '${before}'`,
  ]),
  "UPDATE notification SET link = REPLACE(link, '?place=', '?environment=') WHERE link LIKE '%?place=%'",
  'ALTER TABLE environment RENAME COLUMN IF EXISTS way_in TO access, RENAME COLUMN IF EXISTS way_in_sealed TO access_sealed',
];
