/**
 * What happens in Armband, and which screens show it. The server tells events as they stand here; a screen asks again
 * for what it shows by the keys that belong to them.
 */

/** None of an event's own data. */
type Nothing = Record<string, never>;

export interface DomainEvents {
  /** What lists show of these sites may be another now: a verdict, a fix, a stage, a name. */
  SitesChanged: { siteIds: readonly number[] };
  /** Something that belongs to a site was changed: its brief, a build, a text, an account, a report. */
  SiteTouched: { siteId: number };
  /** A launch has begun, moved, or ended. */
  LaunchChanged: { siteId: number };
  /** There are more or fewer sites of a client, host profile or checklist. */
  SitesCounted: Nothing;
  /** These sites are about to be deleted. */
  SitesDeleted: { siteIds: readonly number[] };
  /** A site was set to launched. */
  SiteLaunched: { siteId: number; name: string; by: string };
  ClientsChanged: Nothing;
  ClientDeleted: { clientId: number };
  /** A client became one with another. */
  ClientMerged: { clientId: number; into: number };
  ContactsChanged: Nothing;
  /** A contact has another name. */
  ContactRenamed: { contactId: number };
  /** A contact is nobody's any more. */
  ContactLeft: { contactId: number };
  /** A contact became one with another. */
  ContactMerged: { contactId: number; into: number };
  PeopleChanged: Nothing;
  /** Somebody of the team has another name, or came back. */
  PersonRenamed: { personId: number };
  /** Somebody has left the team. */
  PersonLeft: { personId: number };
  SessionsChanged: Nothing;
  MessagesChanged: Nothing;
  ViewsChanged: Nothing;
  HostProfilesChanged: Nothing;
  HostProfileRenamed: { hostProfileId: number };
  HostProfileDeleted: { hostProfileId: number };
  ChecklistsChanged: Nothing;
  /** Audits of these sites were queued, begun or ended. */
  AuditsRunning: { siteIds: readonly number[] };
  /** Pictures of a site were made. */
  PicturesMade: { siteId: number };
  LaunchTemplateChanged: Nothing;
  ReportTemplateChanged: Nothing;
  SchedulesChanged: Nothing;
  JobChanged: { jobId: number };
  ClockChanged: Nothing;
  PracticeNetChanged: Nothing;
}

export type EventName = keyof DomainEvents;

/** An event as it is told. */
export type DomainEvent = { [E in EventName]: { name: E; data: DomainEvents[E] } }[EventName];

/** A path of words and numbers by which screens keep what they know, the widest first. */
export type ScreenKey = (string | number)[];

const sites = (siteIds: readonly number[]): ScreenKey[] => siteIds.map((id) => ['site', id]);

const SCREENS: { [E in EventName]: ScreenKey[] | ((data: DomainEvents[E]) => ScreenKey[]) } = {
  SitesChanged: ({ siteIds }) => [['roster'], ['fixes'], ['fix'], ...sites(siteIds)],
  SiteTouched: ({ siteId }) => sites([siteId]),
  LaunchChanged: ({ siteId }) => [...sites([siteId]), ['launches']],
  SitesCounted: [['clients'], ['host-profiles'], ['checklists']],
  SitesDeleted: ({ siteIds }) => [['roster'], ['fixes'], ['clients'], ...sites(siteIds)],
  SiteLaunched: [],
  ClientsChanged: [['clients']],
  ClientDeleted: [['clients'], ['checklists']],
  ClientMerged: [['clients']],
  ContactsChanged: [['clients'], ['contacts']],
  ContactRenamed: [],
  ContactLeft: [],
  ContactMerged: [],
  PeopleChanged: [['people']],
  PersonRenamed: [['people']],
  PersonLeft: [['people']],
  SessionsChanged: [['people', 'sessions']],
  MessagesChanged: [['messages']],
  ViewsChanged: [['views']],
  HostProfilesChanged: [['host-profiles']],
  HostProfileRenamed: [['host-profiles']],
  HostProfileDeleted: [['host-profiles']],
  ChecklistsChanged: [['checklists']],
  AuditsRunning: ({ siteIds }) => [['roster'], ...siteIds.map((id): ScreenKey => ['site', id, 'head'])],
  PicturesMade: ({ siteId }) => [['site', siteId, 'pictures']],
  LaunchTemplateChanged: [['launch-template']],
  ReportTemplateChanged: [['report-template']],
  SchedulesChanged: [['schedules']],
  JobChanged: ({ jobId }) => [['job', jobId]],
  ClockChanged: [['clock']],
  PracticeNetChanged: [['practice-net']],
};

/** What screens ask again for when this has happened. */
export function screenKeys<E extends EventName>({
  name,
  data,
}: {
  name: E;
  data: DomainEvents[E];
}): ScreenKey[] {
  const keys = SCREENS[name];
  return typeof keys === 'function' ? keys(data) : keys;
}
