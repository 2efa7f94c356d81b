/** Pictures of a site, as the browser asks for them. */
import { addressOf } from './api';

type Asked = Record<string, string | number | boolean>;

const asked = (query: Asked): string =>
  new URLSearchParams(Object.entries(query).map(([key, value]) => [key, String(value)])).toString();

/** Where the server gives a picture. @param query what it is made with */
export const pictureAddress = (route: string, id: number, query: Asked): string =>
  `${addressOf(route, { id })}?${asked(query)}`;

/** A small copy of a picture of the site itself. @param width in pixels */
export const smallPicture = (environmentId: number, url: string, width: number): string =>
  pictureAddress('/api/environments/:id/pictures/small', environmentId, { url, width });

/** The path of an address, which tells files of one site apart. */
export const pathOf = (url: string): string => new URL(url).pathname;
