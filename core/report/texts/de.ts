/** The report in German. */
import { CHECKS_DE } from './checks-de';
import type { ReportTexts } from './report-texts';

const count = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

export const DE: ReportTexts = {
  name: 'Deutsch',
  checks: CHECKS_DE,
  sections: {
    identity: 'Wer Sie sind',
    https: 'Sichere Verbindung',
    domain: 'Ihre Adresse',
    indexing: 'Gefunden werden',
    verification: 'Besuche zählen',
    metadata: 'Suchergebnisse',
    sharing: 'Geteilte Verweise',
    delivery: 'Funktionieren',
  },
  parts: {
    letter: 'Brief',
    standing: 'Wie Ihre Website dasteht',
    changed: 'Was sich geändert hat',
    open: 'Was offen ist und wer was tut',
    left: 'Mit Absicht so gelassen',
    pictures: 'Wie sie aussieht',
    manual: 'Von einem Menschen durchgesehen',
  },
  nothing: {
    open: 'Nichts ist offen.',
    changed: 'Nichts hat sich geändert.',
    firstReport: 'Dies ist der erste Bericht.',
    pictures: 'Dieses Mal wurden keine Bilder aufgenommen.',
  },
  report: 'Bericht über Ihre Website',
  lookedAt: 'Angesehen am',
  page: 'Seite',
  edition: (n) => `Ausgabe ${n}`,
  verdict: (gate, blockers, launched) => {
    if (gate === 'held')
      return launched
        ? `${count(blockers, 'Sache muss', 'Sachen müssen')} jetzt in Ordnung gebracht werden.`
        : `${count(blockers, 'Sache steht', 'Sachen stehen')} dem Start im Weg.`;
    if (gate === 'undecided')
      return launched
        ? 'Soweit bekannt, ist nichts kaputt; einiges ist noch anzusehen.'
        : 'Soweit bekannt, steht nichts im Weg; einiges ist noch anzusehen.';
    return launched ? 'Das Wichtigste ist in Ordnung.' : 'Dem Start steht nichts im Weg.';
  },
  openCount: (others, blockers) =>
    `${blockers ? 'Daneben' : 'Insgesamt'} ${others === 1 ? 'ist' : 'sind'} ${count(others, 'Sache', 'Sachen')} offen.`,
  undecidedCount: (n) => `${count(n, 'Sache ließ', 'Sachen ließen')} sich von außen nicht feststellen.`,
  waitingCount: (n) => `${count(n, 'Sache ist', 'Sachen sind')} noch von einem Menschen durchzusehen.`,
  smallOpen: (n) =>
    `Außerdem ${n === 1 ? 'ist' : 'sind'} ${count(n, 'kleinere Sache', 'kleinere Sachen')} offen.`,
  onlySmallOpen: (n) =>
    `Nur ${count(n, 'kleinere Sache', 'kleinere Sachen')} ${n === 1 ? 'ist' : 'sind'} noch offen.`,
  bandLegend:
    'Ganzes Tuch ist in Ordnung, zerrissenes ist kaputt, schraffiertes ließ sich nicht feststellen oder ist noch anzusehen.',
  mended: 'In Ordnung gebracht',
  fresh: 'Neu',
  since: (date) => `Verglichen mit dem Bericht vom ${date}.`,
  sinceFirst: (date) => `Verglichen mit unserem ersten Blick am ${date}.`,
  found: 'Gefunden',
  who: 'Wer',
  nobodyYet: 'noch niemandem übertragen',
  by: 'Bis',
  onPages: (n) => `an ${count(n, 'Stelle', 'Stellen')}`,
  gravity: { blocker: 'steht im Weg', major: 'wichtig', minor: 'klein' },
  states: { 'in progress': 'in Arbeit', 'to verify': 'getan, wird noch nachgesehen' },
  desktop: 'auf einem Rechner',
  phone: 'auf einem Telefon',
  done: 'getan',
  notYet: 'noch zu tun',
  shared: {
    forYou: 'Diese Seite ist für',
    somebodyElse: 'jemand anderem',
    passphrase: 'Kennwort',
    open: 'Bericht öffnen',
    asPdf: 'Als PDF speichern',
    yesTitle: 'Ihr Ja',
    yesText: (environment) =>
      `Wenn alles so ist, wie Sie es wollen, sagen Sie Ja. Ihr Ja gilt genau diesem Stand (${environment}); ändert er sich danach, müssen wir erneut fragen.`,
    yesNote: 'Was Sie dazu noch sagen möchten',
    sayYes: 'Ich sage Ja dazu',
    saidYes: (date) => `Sie haben am ${date} Ja dazu gesagt.`,
    stale: 'Die Website hat sich seit Ihrem Ja geändert.',
    withdrawYes: 'Ja zurücknehmen',
    withdrawn: (date) => `Sie haben Ihr Ja am ${date} zurückgenommen.`,
    newer: 'Ihr Ja galt einer früheren Ausgabe. Diese fragt erneut.',
    remarksTitle: 'Ihre Anmerkungen',
    remarkAbout: 'Worum geht es?',
    whole: 'Um die Website im Ganzen',
    finding: 'Um etwas im Bericht',
    pageAbout: 'Um eine Seite',
    remarkText: 'Ihre Anmerkung',
    regionHint:
      'Wenn Sie mögen, zeigen Sie auf dem Bild, was Sie meinen: drücken und ziehen, oder mit der Tastatur: Pfeiltasten bewegen, mit Umschalt ändern sie die Größe. Worte allein genügen.',
    regionMarked: 'Auf dem Bild markiert',
    clearRegion: 'Markierung entfernen',
    send: 'Senden',
    sent: 'Danke, Ihre Anmerkung ist angekommen.',
    noRemarks: 'Sie haben noch nichts angemerkt.',
    remarkState: {
      waiting: 'angekommen',
      answered: 'beantwortet',
      taken: 'wird erledigt',
      'in progress': 'in Arbeit',
      'to verify': 'getan, wird noch nachgesehen',
      done: 'erledigt',
    },
    ask: 'Etwas dazu sagen',
    waitsForYou: 'Das wartet auf Sie',
    reason: 'Warum',
    cancel: 'Abbrechen',
  },
};
