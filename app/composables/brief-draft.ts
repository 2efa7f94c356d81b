/** A brief as the form holds it: everything text, lists and records by line. */
import type { Brief } from '#core/facts/brief';
import { readList, readRecordLines, readTokenLines, writeRecordLines, writeTokenLines } from '#core/formats/brief-lines';

export interface BriefDraft { name: string; tagline: string; contactEmail: string; privateEmails: string; phone: string; languages: string; preferredHost: string; otherHosts: string; homeMark: string; requiredPages: string; records: string; tokens: string; analyticsIds: string }

export function draftOf(brief: Brief = {}): BriefDraft {
  const list = (v?: string[]) => (v ?? []).join(', ');
  return { name: brief.name ?? '', tagline: brief.tagline ?? '', contactEmail: brief.contactEmail ?? '', privateEmails: list(brief.privateEmails), phone: brief.phone ?? '', languages: list(brief.languages), preferredHost: brief.preferredHost ?? '', otherHosts: list(brief.otherHosts), homeMark: brief.homeMark ?? '', requiredPages: list(brief.requiredPages), records: writeRecordLines(brief.records ?? []), tokens: writeTokenLines(brief.tokens ?? []), analyticsIds: list(brief.analyticsIds) };
}

/** The draft as a brief; empty fields are left out when taking on, and sent as empty lists when saving, so that they become unfilled. */
export function briefOf(d: BriefDraft, keepEmpty = false): { brief: Record<string, unknown>; faults: string[] } {
  const records = readRecordLines(d.records), tokens = readTokenLines(d.tokens);
  const lists = { privateEmails: readList(d.privateEmails), languages: readList(d.languages), otherHosts: readList(d.otherHosts), requiredPages: readList(d.requiredPages), records: records.values, tokens: tokens.values, analyticsIds: readList(d.analyticsIds) };
  const texts = { name: d.name.trim(), tagline: d.tagline.trim(), contactEmail: d.contactEmail.trim(), phone: d.phone.trim(), preferredHost: d.preferredHost.trim(), homeMark: d.homeMark.trim() };
  // null stands for a text that was emptied
  const brief = { ...Object.fromEntries(Object.entries(texts).filter(([, v]) => keepEmpty || v).map(([k, v]) => [k, v || null])), ...Object.fromEntries(Object.entries(lists).filter(([, v]) => keepEmpty || v.length)) };
  return { brief, faults: [...records.faults.map(f => `Records: ${f}`), ...tokens.faults.map(f => `Tokens: ${f}`)] };
}
