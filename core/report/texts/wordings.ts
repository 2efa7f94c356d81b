/** How findings are put in the languages of reports. Apart from the other texts: screens have no need of it. */
import { IN_ENGLISH, type Wording } from '#core/text/messages';
import type { ReportLanguage } from '../setup';
import { FOUND_DE } from './found-de';

export const WORDINGS: Record<ReportLanguage, Wording> = {
  en: IN_ENGLISH,
  de: { language: 'de', sentenceOf: (code) => FOUND_DE[code] },
};
