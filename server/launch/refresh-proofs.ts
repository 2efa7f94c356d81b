/** Proofs of a launch that somebody asks for: the new address asked for the name, and the mail servers for a mailbox. */
import { registrableDomain } from '#core/extract/address';
import type { Outcome } from '#core/facts/finding';
import type { ProofKind } from '#core/facts/launch';
import { judgeMail } from '#core/launch/mail-dialogue';
import type { Seen } from '#core/launch/sheet';
import { goalOf, type Shows } from '#core/launch/watch';
import { askMailServers } from '#probe/mail-dialogue';
import { hostsOf } from '#probe/plan';
import { askNewAddress } from '#probe/watching';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Refused } from '#server/platform/errors';
import { networkSettings } from '#server/platform/network/network';
import { launchedFrom, planFrom } from './cut-over';
import { Launch } from './models';
import { watchedResolvers } from './watch';

type Answer = Omit<Seen, 'title' | 'at'>;

const TOLD: Record<Shows, Outcome> = {
  site: 'passed',
  'unknown name': 'failed',
  'parking page': 'failed',
  'holding page': 'failed',
  // the new address is the old one: nothing is told apart by it
  'old site': 'cantTell',
  refused: 'cantTell',
  nothing: 'cantTell',
};

/** Whether the new address knows the preferred name. @throws NotFound, Refused */
async function askTold(siteId: number): Promise<Answer> {
  const from = await launchedFrom(siteId);
  const plan = planFrom(from);
  const { live, brief, profile } = from;
  if (!plan || !live) throw new Refused('The live address was not looked at yet.');
  const hosts = hostsOf(live.url, 'live', brief);
  const goal = goalOf(plan, { brief, hosts, ranges: profile?.addressRanges });
  const { resolvers: _, store, agent, ...network } = networkSettings();
  const seen = await askNewAddress({
    ...network,
    store: store!,
    agent: agent!,
    goal,
    zone: registrableDomain(hosts[0] ?? '') ?? '',
    brief,
    profile,
    resolvers: watchedResolvers(),
  });
  if (!seen) return { outcome: 'inapplicable', found: 'the plan names no new address to ask' };
  const { host, address, shows, title, error } = seen;
  const what = [shows === 'nothing' ? (error ?? 'no answer') : shows, title && `“${title}”`].filter(Boolean);
  return { outcome: TOLD[shows], found: `${address} shows for ${host}: ${what.join(', ')}` };
}

/** Whether the zone’s own mail servers take mail. @throws NotFound, Refused */
async function askMail(siteId: number): Promise<Answer> {
  const { live, brief } = await launchedFrom(siteId);
  const zone = registrableDomain(live ? new URL(live.url).hostname : '');
  if (!zone) throw new Refused('The live address has no domain that could take mail.');
  const own = brief.contactEmail?.toLowerCase();
  // every domain that takes mail has this one (RFC 5321 4.5.1)
  const mailbox = own?.endsWith(`@${zone}`) ? own : `postmaster@${zone}`;
  const dialogues = await askMailServers(networkSettings(), zone, mailbox);
  return judgeMail(mailbox, dialogues);
}

const ASKED: Partial<Record<ProofKind, (siteId: number) => Promise<Answer>>> = {
  told: askTold,
  mail: askMail,
};

/**
 * Asks what proofs of these kinds need, and keeps the answers with the launch.
 * @returns whether there was anything to ask. @throws NotFound, Refused
 */
export async function refreshProofs(launch: Launch, kinds: readonly ProofKind[]): Promise<boolean> {
  const asked = await Promise.all(
    kinds.flatMap((kind) => {
      const ask = ASKED[kind];
      return ask
        ? [ask(launch.siteId).then((answer) => [kind, { ...answer, at: now().getTime() }] as const)]
        : [];
    }),
  );
  if (!asked.length) return false;
  await inTransaction(async (transaction) => {
    const held = await Launch.findByPk(launch.id, { transaction, lock: true, rejectOnEmpty: true });
    await held.update({ asked: { ...held.asked, ...Object.fromEntries(asked) } }, { transaction });
    await emit('SiteTouched', { siteId: launch.siteId }, transaction);
  });
  return true;
}
