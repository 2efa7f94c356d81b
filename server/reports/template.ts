/** How all reports of the agency begin: its name, logo, colour, letter. */
import type { AgencyLook } from '#core/report/report';
import { REPORT_PARTS } from '#core/report/setup';
import type { ReportSetup } from '#core/report/setup';
import { now } from '#server/platform/clock';
import { NotFound, Refused } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import { typeOfFile } from '#server/platform/files/files';
import type { TemplateData } from './dto';
import { ReportTemplate } from './models';

/** There is one. */
const THE_ONE = 1;
const MEGABYTE = 1024 * 1024;
export const MOST_LOGO_BYTES = MEGABYTE;
const LOGO_TYPES = new Set(['image/png', 'image/jpeg', 'image/webp', 'image/gif']);

/** Before anybody has chosen: the colour is that of the application’s own cloth. */
const AT_FIRST: TemplateData = {
  name: '',
  colour: '#3a3f8f',
  language: 'en',
  parts: [...REPORT_PARTS],
  letter: '',
  signedBy: '',
  smallToo: false,
};

export interface Template extends TemplateData {
  hasLogo: boolean;
}

export async function template(): Promise<Template> {
  const row = await ReportTemplate.findByPk(THE_ONE, { attributes: ['id', 'data', 'logoType'] });
  return { ...AT_FIRST, ...row?.data, hasLogo: Boolean(row?.logoType) };
}

export const lookOf = ({ name, colour, hasLogo }: Template): AgencyLook => ({ name, colour, hasLogo });

/** With what the report of a site begins. */
export const firstSetup = ({ language, parts, letter, signedBy, smallToo }: Template): ReportSetup => ({
  language,
  parts,
  letter,
  signedBy,
  smallToo,
  leftOut: [],
  words: [],
});

export async function saveTemplate(data: TemplateData, by: string): Promise<void> {
  await ReportTemplate.upsert({ id: THE_ONE, data, savedBy: by, savedAt: now() });
  announce('ReportTemplateChanged', {});
}

/** @param logo nothing takes it away; @throws Refused */
export async function saveLogo(logo: Buffer | null, by: string): Promise<void> {
  const type = logo && typeOfFile(logo);
  if (logo && (!type || !LOGO_TYPES.has(type)))
    throw new Refused('A logo is a picture: PNG, JPEG, WebP or GIF.');
  const { hasLogo: _, ...data } = await template();
  await ReportTemplate.upsert({
    id: THE_ONE,
    data,
    logo,
    logoType: type ?? null,
    savedBy: by,
    savedAt: now(),
  });
  announce('ReportTemplateChanged', {});
}

/** @throws NotFound */
export async function logo(): Promise<{ data: Buffer; type: string }> {
  const row = await ReportTemplate.findByPk(THE_ONE);
  if (!row?.logo || !row.logoType) throw new NotFound('There is no logo.');
  return { data: row.logo, type: row.logoType };
}
