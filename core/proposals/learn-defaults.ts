/**
 * What an untouched site of a host leaves behind: its titles, texts, people and icons, proposed as defaults
 * of its profile.
 */
import type { Evidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import { foldSpace } from '#core/text/fold';

export interface LearnedDefault {
  field: keyof NonNullable<HostProfile['defaults']>;
  values: string[];
}

const MOST = 40;
const distinct = (values: (string | undefined)[]): string[] =>
  [...new Set(values.map((v) => foldSpace(v ?? '')).filter((v) => v.length > 1 && v.length <= 300))].slice(
    0,
    MOST,
  );
/** A mail address as a sender in a form's hidden field or action. */
const SENDER = /[\w.+-]+@[\w.-]+\.\w{2,}/g;

/** @returns what the profile does not have yet, field by field */
export function learnDefaults(evidence: Evidence, profile: HostProfile): LearnedDefault[] {
  const pages = evidence.pages.filter((p) => p.facts).map((p) => p.facts!);
  const found: LearnedDefault[] = [
    {
      field: 'titles',
      values: distinct(
        pages.flatMap((f) => f.titles.flatMap((t) => [t.text, ...t.text.split(/\s+[–—|·:-]\s+/)])),
      ),
    },
    {
      field: 'taglines',
      values: distinct(
        pages.flatMap((f) =>
          f.metas
            .filter((m) => m.name === 'description' || m.property === 'og:description')
            .map((m) => m.content),
        ),
      ),
    },
    {
      field: 'texts',
      values: distinct(
        pages.flatMap((f) => f.headings.map((h) => h.text)).filter((t) => t.split(/\s+/).length > 2),
      ),
    },
    {
      field: 'authors',
      values: distinct(
        pages.flatMap((f) => [
          ...f.metas.filter((m) => m.name === 'author').map((m) => m.content),
          ...f.bylines.map((b) => b.text),
        ]),
      ),
    },
    {
      field: 'formSenders',
      values: distinct(
        pages.flatMap((f) =>
          f.forms.flatMap((x) =>
            [x.action, ...x.fields.map((i) => i.value ?? '')].flatMap((t) => t.match(SENDER) ?? []),
          ),
        ),
      ),
    },
    {
      field: 'iconHashes',
      values: distinct(
        evidence.assets
          .filter((a) => a.roles.some((r) => /icon/.test(r) && r !== 'manifest-icon'))
          .map((a) => a.sha256),
      ),
    },
  ];
  return found
    .map((l) => ({ ...l, values: l.values.filter((v) => !(profile.defaults?.[l.field] ?? []).includes(v)) }))
    .filter((l) => l.values.length);
}
