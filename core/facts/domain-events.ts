/**
 * What happens in Armband, and which screens show it. The server sends these events; the browser runs the queries
 * again whose keys belong to them.
 */

/** An event without data. */
type Nothing = Record<string, never>;

export interface DomainEvents {
  /** What lists show of these sites may have changed: a verdict, a fix, a stage, a name. */
  SitesChanged: { siteIds: readonly number[] };
  /** Something that belongs to a site has changed: its brief, a build, a text, an account, a report. */
  SiteTouched: { siteId: number };
  /** A launch has started, moved or ended. */
  LaunchChanged: { siteId: number };
  /** The number of sites of a client, host profile or checklist may have changed. */
  SitesCounted: Nothing;
  /** These sites are about to be deleted. */
  SitesDeleted: { siteIds: readonly number[] };
  /** A site was set to launched. */
  SiteLaunched: { siteId: number; name: string; by: string };
  ClientsChanged: Nothing;
  ClientDeleted: { clientId: number };
  /** A client was merged into another. */
  ClientMerged: { clientId: number; into: number };
  ContactsChanged: Nothing;
  /** A contact was renamed. */
  ContactRenamed: { contactId: number };
  /** A contact has left the client. */
  ContactLeft: { contactId: number };
  /** A contact was merged into another. */
  ContactMerged: { contactId: number; into: number };
  PeopleChanged: Nothing;
  /** A member of the team was renamed, or came back. */
  PersonRenamed: { personId: number };
  /** A member has left the team. */
  PersonLeft: { personId: number };
  SessionsChanged: Nothing;
  MessagesChanged: Nothing;
  ViewsChanged: Nothing;
  HostProfilesChanged: Nothing;
  HostProfileRenamed: { hostProfileId: number };
  HostProfileDeleted: { hostProfileId: number };
  ChecklistsChanged: Nothing;
  /** Audits of these sites were queued, started or ended. */
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

/** An event as it is sent. */
export type DomainEvent = { [E in EventName]: { name: E; data: DomainEvents[E] } }[EventName];

/** The beginning of a query's key, from the widest part to the narrowest. */
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
  ContactRenamed: [['clients'], ['contacts']],
  ContactLeft: [['clients'], ['contacts']],
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

/** The queries to run again after an event. */
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
