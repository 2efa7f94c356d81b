import { describe, expect, it } from 'vitest';
import { screenKeys, type DomainEvent, type ScreenKey } from './domain-events';

describe('queries to run again', () => {
  it.each<[string, DomainEvent, ScreenKey[]]>([
    [
      'lists and the sites themselves, when sites have changed',
      { name: 'SitesChanged', data: { siteIds: [3, 4] } },
      [['roster'], ['fixes'], ['fix'], ['site', 3], ['site', 4]],
    ],
    [
      'one site, when something of it was touched',
      { name: 'SiteTouched', data: { siteId: 3 } },
      [['site', 3]],
    ],
    [
      'only the head of a site, while it is audited',
      { name: 'AuditsRunning', data: { siteIds: [3] } },
      [['roster'], ['site', 3, 'head']],
    ],
    [
      'clients and contacts, when a contact has left',
      { name: 'ContactLeft', data: { contactId: 1 } },
      [['clients'], ['contacts']],
    ],
    [
      'nothing, when a site was launched: what follows from that has events of its own',
      { name: 'SiteLaunched', data: { siteId: 1, name: 'x', by: 'y' } },
      [],
    ],
    ['one list, by its name', { name: 'SchedulesChanged', data: {} }, [['schedules']]],
  ])('%s', (_, event, keys) => expect(screenKeys(event)).toEqual(keys));
});
