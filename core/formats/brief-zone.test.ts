import { describe, expect, it } from 'vitest';
import { recordsFromZone } from './brief-zone';
import { readZoneFile } from '#core/formats/zone-file/read';
import { toZoneFile } from '#core/formats/zone-file/write';

describe('records of a brief as a zone file', () => {
  const records = [
    { name: 'kites.example', type: 'A', value: '192.0.2.10', ttl: 300 },
    { name: 'www.kites.example', type: 'CNAME', value: 'kites.example' },
    { name: 'kites.example', type: 'MX', value: '10 mail.kites.example' },
    { name: 'kites.example', type: 'TXT', value: 'v=spf1 include:_spf.host.example -all' },
    { name: 'kites.example', type: 'TXT', value: 'a "quoted" word; and \\ a stroke' },
    { name: 'kites.example', type: 'CAA', value: '0 issue "ca.example"' },
  ];
  it('goes out by RFC 1035, names dotted, and comes in the same', () => {
    const text = toZoneFile(records);
    expect(text.split('\n').slice(0, 3)).toEqual([
      'kites.example. 300 IN A 192.0.2.10',
      'www.kites.example. IN CNAME kites.example.',
      'kites.example. IN MX 10 mail.kites.example.',
    ]);
    const back = recordsFromZone(readZoneFile(text));
    expect(back.faults).toEqual([]);
    expect(back.records.slice(0, 5)).toEqual(records.slice(0, 5));
  });
  it('the example of RFC 1035 5.3 gives what a host can ask for; what a zone keeps for itself is left out', () => {
    const zone = readZoneFile(
      '@   IN  SOA     VENERA      Action\\.domains (\n 20     ; SERIAL\n 7200   ; REFRESH\n 600    ; RETRY\n 3600000; EXPIRE\n 60)    ; MINIMUM\n        NS      A.ISI.EDU.\n        MX      10      VENERA\nA       A       26.3.0.103\nVENERA  A       10.1.0.52\n        A       128.9.0.32\n',
      'ISI.EDU',
    );
    const { records: got, left, faults } = recordsFromZone(zone);
    expect(faults).toEqual([]);
    expect(left).toBe(1);
    expect(got).toEqual([
      { name: 'isi.edu', type: 'NS', value: 'a.isi.edu' },
      { name: 'isi.edu', type: 'MX', value: '10 venera.isi.edu' },
      { name: 'a.isi.edu', type: 'A', value: '26.3.0.103' },
      { name: 'venera.isi.edu', type: 'A', value: '10.1.0.52' },
      { name: 'venera.isi.edu', type: 'A', value: '128.9.0.32' },
    ]);
  });
  it('strings of a TXT record are joined; lines that cannot be read are told', () => {
    const got = recordsFromZone(
      readZoneFile('a.example. TXT "one " "two"\nb.example. IN\n$INCLUDE other.zone\n'),
    );
    expect(got.records).toEqual([{ name: 'a.example', type: 'TXT', value: 'one two' }]);
    expect(got.faults).toHaveLength(2);
    expect(got.faults[0]).toMatch(/^line 2: /);
  });
});
