/**
 * What happens in one subject and concerns others. Each is told in the transaction that brings it about, before
 * that ends.
 */
export interface DomainEvents {
  /** What lists show of these sites may be another now. */
  SitesChanged: { siteIds: readonly number[] };
  /** These sites are about to be deleted. */
  SitesDeleted: { siteIds: readonly number[] };
  /** A site was set to launched. */
  SiteLaunched: { siteId: number; name: string; by: string };
  ClientDeleted: { clientId: number };
  /** A client became one with another. */
  ClientMerged: { clientId: number; into: number };
  /** A contact has another name. */
  ContactRenamed: { contactId: number };
  /** A contact is nobody's any more. */
  ContactLeft: { contactId: number };
  /** A contact became one with another. */
  ContactMerged: { contactId: number; into: number };
  /** Somebody of the team has another name, or came back. */
  PersonRenamed: { personId: number };
  /** Somebody has left the team. */
  PersonLeft: { personId: number };
  HostProfileRenamed: { hostProfileId: number };
  HostProfileDeleted: { hostProfileId: number };
}

export type EventName = keyof DomainEvents;
