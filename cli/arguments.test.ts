import { describe, expect, it } from 'vitest';
import { readArguments, UsageError } from './arguments';

describe('the words of the command line', () => {
  it('reads all of them', () => {
    expect(
      readArguments([
        'https://a.example',
        '--situation',
        'staging',
        '--resolver',
        '127.0.0.1:53',
        '--resolver',
        '127.0.0.2:53',
        '--map',
        'a=127.0.0.1:1',
        '--ca',
        'x.pem',
        '--allow-private',
        '--pages',
        '5',
        '--timeout',
        '2.5',
        '--format',
        'json',
      ]),
    ).toMatchObject({
      url: 'https://a.example',
      situation: 'staging',
      resolver: ['127.0.0.1:53', '127.0.0.2:53'],
      map: ['a=127.0.0.1:1'],
      ca: ['x.pem'],
      allowPrivate: true,
      pages: 5,
      timeout: 2.5,
      format: 'json',
    });
  });
  it('politeness, name and formats', () => {
    expect(
      readArguments([
        'a.example',
        '--delay',
        '250',
        '--concurrency',
        '2',
        '--agent',
        'Look/1',
        '--outside',
        '--har',
        'h',
        '--zone',
        'z',
        '--way-in',
        'w',
        '--from-har',
        'f',
        '--from-zone',
        'g',
      ]),
    ).toMatchObject({
      delay: 250,
      concurrency: 2,
      agent: 'Look/1',
      outside: true,
      har: 'h',
      zone: 'z',
      access: 'w',
      fromHar: 'f',
      fromZone: 'g',
    });
    expect(readArguments(['a.example'])).toMatchObject({ delay: 0, concurrency: 6, outside: false });
  });
  it('takes a bare host for https', () => {
    expect(readArguments(['a.example/x']).url).toBe('https://a.example/x');
  });
  it.each([
    [[]],
    [['a', 'b']],
    [['a', '--situation', 'x']],
    [['a', '--pages', '0']],
    [['a', '--pages', 'many']],
    [['a', '--format', 'xml']],
    [['a', '--nonsense']],
    [['https://a b']],
    [['--from-har', 'x.har']],
    [['a', '--from-zone', 'x.zone']],
    [['a', '--agent', 'x\r\ny']],
    [['a', '--concurrency', '33']],
    [['a', '--delay', '-1']],
  ])('refuses %j', (argv) => {
    expect(() => readArguments(argv)).toThrow(UsageError);
  });
});
