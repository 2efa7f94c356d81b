/** What is entered of a site itself, for adding it and for changing it. */
import type { Stage } from '#core/facts/situation';

export interface SiteDraft {
  name: string;
  client: string;
  stage: Stage;
  replaces: boolean;
  launchDate: string;
  hostProfile: string;
  /** 0 is nobody. */
  ownerId: number;
  /** 0 is the usual number. */
  pageLimit: number;
}

export const SITE_LABELS: Record<keyof SiteDraft, string> = {
  name: 'Name of the site',
  client: 'Client',
  stage: 'Stage',
  replaces: 'It replaces a running site',
  launchDate: 'Launch date',
  hostProfile: 'Host profile',
  ownerId: 'Owner',
  pageLimit: 'Pages read by an audit, at most',
};

export const emptySite = (): SiteDraft => ({
  name: '',
  client: '',
  stage: 'building',
  replaces: false,
  launchDate: '',
  hostProfile: '',
  ownerId: 0,
  pageLimit: 0,
});

/** What a site cannot be without, by field; empty where it is there. */
export const missingOf = ({ name, client }: SiteDraft): Record<'name' | 'client', string> => ({
  name: name.trim() ? '' : 'Name the site.',
  client: client.trim() ? '' : 'Name the client.',
});
