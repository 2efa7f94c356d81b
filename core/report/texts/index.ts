/** The languages of reports. Another one is a file like en.ts, with its words for the checks, a line here, and its code in setup.ts. */
import { DE } from './de';
import { EN } from './en';
import type { ReportLanguage } from '../setup';
import type { ReportTexts } from './report-texts';

const TEXTS: Record<ReportLanguage, ReportTexts> = { en: EN, de: DE };

export const reportTexts = (language: ReportLanguage): ReportTexts => TEXTS[language];
