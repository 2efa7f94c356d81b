/** The cut-over plan applied to a zone of BIND: what `dig` reads is the plan, and the way back gives what was there. */
import { afterAll, beforeAll, expect, it } from 'vitest';
import { servedBy, planCutOver, plainValue, type CutOver } from '#core/launch/cut-over';
import { readZoneFile } from '#core/formats/zone-file/read';
import type { ZoneFileRecord } from '#core/formats/zone-file/records';
import { zoneLine } from '#core/formats/zone-file/write';
import { HEAD, Bed, WEB } from './bed';

const ZONE = 'ferry.example';
const KEY = `v=DKIM1; k=rsa; p=${'MIIBIjANBgkqhkiG9w0BAQEFAAOCAQ8A'.repeat(11)}`;
const OLD = [
  `@ 3600 IN A ${WEB}`,
  `@ 3600 IN AAAA 2001:db8::77`,
  `www 3600 IN A ${WEB}`,
  '@ 3600 IN MX 10 mail.ferry.example.',
  'mail 3600 IN A 192.0.2.25',
  '@ 3600 IN TXT "v=spf1 mx -all"',
  '@ 3600 IN TXT "firth-verification=abc"',
  '@ 3600 IN CAA 0 issue "ca.example"',
  `tide._domainkey 3600 IN TXT ${KEY.match(/.{1,255}/g)!
    .map((s) => `"${s}"`)
    .join(' ')}`,
];
const WANTED = [
  { name: ZONE, type: 'A', value: '192.0.2.20' },
  { name: `www.${ZONE}`, type: 'CNAME', value: 'edge.host.example' },
  { name: ZONE, type: 'TXT', value: 'host-verification=1; "quoted"' },
];
const NAMES = [ZONE, `www.${ZONE}`, `mail.${ZONE}`, `tide._domainkey.${ZONE}`];
const TYPES = ['A', 'AAAA', 'CNAME', 'MX', 'TXT', 'CAA'];

let bed: Bed;
let plan: CutOver;
let before: Map<string, string[]>;

/** All that `dig` reads of the zone's names, by name and type. */
function read(): Map<string, string[]> {
  return new Map(
    NAMES.flatMap((name) =>
      TYPES.map((type): [string, string[]] => [
        `${name} ${type}`,
        bed
          .dig(name, type)
          .filter((r) => r.type === type)
          .map((r) => plainValue(type, r.value))
          .sort(),
      ]),
    ),
  );
}
const keyOf = ({ name, type, value }: ZoneFileRecord): string => `${name} ${type} ${plainValue(type, value)}`;
const recordsIn = (text: string): ZoneFileRecord[] => {
  const { records, errors } = readZoneFile(text, ZONE);
  expect(errors).toEqual([]);
  return records;
};

/** Takes out of the zone what one text of the plan names, and puts in the other, as it stands. */
async function apply(out: string, put: string): Promise<void> {
  const gone = new Set(recordsIn(out).map(keyOf));
  const all = recordsIn(bed.zoneText(ZONE));
  const kept = all.filter((record) => !gone.has(keyOf(record)));
  expect(all.length - kept.length).toBe(gone.size);
  bed.zone(ZONE, [...kept.map(zoneLine), ...put.split('\n')]);
  await bed.names();
}

beforeAll(async () => {
  bed = await Bed.start();
  bed.zone(ZONE, [...HEAD, ...OLD]);
  await bed.names();
  const { evidence } = await bed.audit(`https://${ZONE}/`, {
    brief: { preferredHost: ZONE, otherHosts: [`www.${ZONE}`], dkimSelectors: ['tide'], records: WANTED },
  });
  plan = planCutOver({ ...servedBy(evidence.dns), wanted: WANTED });
  before = read();
});
afterAll(() => bed.stop());

it('dig reads what the plan says, with mail and tokens as they were', async () => {
  await apply(plan.back, plan.wanted);
  const now = read();
  const planned = new Map(plan.lines.map((l) => [`${l.name} ${l.type}`, l.after]));
  // names of which the plan knows nothing stay
  const expected = new Map([...before].map(([key, values]) => [key, planned.get(key) ?? values]));
  expect(now).toEqual(expected);
  expect(now.get(`${ZONE} A`)).toEqual(['192.0.2.20']);
  expect(now.get(`${ZONE} AAAA`)).toEqual([]);
  expect(now.get(`www.${ZONE} CNAME`)).toEqual(['edge.host.example']);
  expect(now.get(`${ZONE} MX`)).toEqual([`10 mail.${ZONE}`]);
  expect(now.get(`${ZONE} TXT`)).toHaveLength(3);
});

it('the way back gives what was there, to the letter', async () => {
  await apply(plan.wanted, plan.back);
  expect(read()).toEqual(before);
});
