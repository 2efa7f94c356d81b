/** A launch: the steps of its run sheet, what proves them, and the accounts that it rests on. */

export const PHASES = ['week before', 'day before', 'launch', 'right after', 'days after'] as const;
export type Phase = (typeof PHASES)[number];
export const PHASE_WORDS: Record<Phase, string> = {
  'week before': 'A week before',
  'day before': 'The day before',
  launch: 'Launch',
  'right after': 'Right after',
  'days after': 'The days after',
};

/** Which of the accounts a step is done in. */
export const ACCOUNT_KINDS = ['registrar', 'dns', 'host', 'mail', 'site', 'search'] as const;
export type AccountKind = (typeof ACCOUNT_KINDS)[number];
export const ACCOUNT_WORDS: Record<AccountKind, string> = {
  registrar: 'Registrar',
  dns: 'DNS operator',
  host: 'Host',
  mail: 'Mailboxes',
  site: 'Site settings',
  search: 'Search engines',
};

/** Who usually does a step. */
export const PERFORMERS = ['agency', 'client', 'outside'] as const;
export type Performer = (typeof PERFORMERS)[number];
export const PERFORMER_WORDS: Record<Performer, string> = {
  agency: 'the agency',
  client: 'the client',
  outside: 'somebody outside',
};

/** When a step belongs on the sheet of a site. */
export const CONDITIONS = {
  always: 'at every launch',
  replaces: 'the site replaces a running one',
  new: 'nothing runs at the address yet',
  records: 'the site is reached by records, at the DNS operator of today',
  addressed: 'the site is reached by records, wherever they are kept',
  forwarding: 'the site is reached by forwarding',
  moves: 'the name servers move',
  transfers: 'the domain moves to another registrar',
  signed: 'the zone is signed (DNSSEC)',
  mail: 'the domain takes mail',
  holding: 'a holding page is up',
  tokens: 'verification tokens are wanted',
  measured: 'visits are measured',
  consent: 'visitors are asked for consent',
  former: 'former addresses are listed',
  staging: 'there is an environment before the live one',
  'staging ends': 'staging lapses on a known day',
  build: 'a build was uploaded to compare with',
} as const;
export type Condition = keyof typeof CONDITIONS;
export const CONDITION_NAMES = Object.keys(CONDITIONS) as Condition[];

/** What shows that a step is done, beside a person’s word. */
export const PROOF_KINDS = [
  'check',
  'records',
  'gate',
  'stage',
  'watch',
  'accounts',
  'told',
  'mail',
  'left',
] as const;
export type ProofKind = (typeof PROOF_KINDS)[number];
export const PROOF_WORDS: Record<Exclude<ProofKind, 'check'>, string> = {
  records: 'the records served are those wanted',
  gate: 'no blocker is open in what goes live',
  stage: 'the site is set to launched',
  watch: 'the watch says that it holds',
  accounts: 'registrar, DNS operator and host are written down',
  told: 'the new address shows the site for its name',
  mail: 'the mail server takes mail for the domain',
  left: 'nothing of the domain leads to the old address',
};
export interface Proof {
  kind: ProofKind;
  /** Of a check: where it looks, and its id. */
  environment?: 'live' | 'before';
  check?: string;
}

/** Text that a step has ready, made from the site’s facts. */
export const PASTES = {
  wanted: 'Records to set',
  zone: 'The whole zone for the new servers',
  lowered: 'The same records with a TTL of 300 seconds',
  names: 'The names to tell the host',
  servers: 'The name servers to set',
  forward: 'The forward to set',
  redirects: 'Redirects of former addresses (nginx)',
  note: 'A note to the client',
} as const;
export type PasteKind = keyof typeof PASTES;
export const PASTE_KINDS = Object.keys(PASTES) as PasteKind[];

/** A step as the template has it. */
export interface TemplateStep {
  id: string;
  title: string;
  /** What to do, in a sentence or two. */
  what: string;
  phase: Phase;
  /** Planned so many hours after the launch; before it where negative. */
  offsetHours: number;
  when: Condition;
  where?: AccountKind;
  who: Performer;
  /** Steps that have to be done before it. */
  after: string[];
  proofs: Proof[];
  /** How to undo it. */
  back?: string;
  paste?: PasteKind;
  /** How long it takes to do, in minutes. */
  minutes?: number;
  /** Left off the sheet of a site of one page. */
  isLong?: boolean;
}

export interface LaunchTemplate {
  steps: TemplateStep[];
}

/** An account that a site rests on. Never a secret. */
export interface SiteAccount {
  kind: AccountKind;
  operator: string;
  /** Under whose name it is. */
  holder: string;
  /** Who can get in. */
  access: string;
  payer: string;
  /** What is at hand, such as the transfer code: that it is, not what it is. */
  hasTransferCode: boolean;
  note: string;
}
