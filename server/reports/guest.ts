import type { Contact } from '#server/sites';
import type { ShareLink } from './models';

/** A contact who has opened a share link in this browser. */
export interface Guest {
  link: ShareLink;
  contact: Contact;
}
