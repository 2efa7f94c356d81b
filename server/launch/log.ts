/** What was done at a launch when and by whom, and what many launches teach. */
import { Op } from 'sequelize';
import { launchCalendar } from '#core/formats/run-sheet/icalendar';
import { launchMarkdown } from '#core/formats/run-sheet/markdown';
import { BUILT_IN_TEMPLATE } from '#core/launch/built-in-template';
import { waitsOf, type StepWait } from '#core/launch/waits';
import { now } from '#server/platform/clock';
import { NotFound } from '#server/platform/errors';
import { plainName } from '#server/platform/http/file-names';
import { getSite } from '#server/sites';
import { accountsOf } from './accounts';
import { Launch, LaunchEvent, type LaunchEventKind } from './models';
import { inZone, sheetOfLaunch } from './sheet';

const GONE = 'This launch is not there, or not any more.';
const MOST_EVENTS = 1000;
const MOST_WAITS = 5;

interface LogLine {
  kind: LaunchEventKind;
  step: string | null;
  by: string;
  at: string;
  text: string | null;
}
export interface LaunchLog {
  id: number;
  number: number;
  plannedAt: string;
  wentAt: string | null;
  wentBy: string | null;
  endedAt: string | null;
  endedBy: string | null;
  endedHow: 'done' | 'given up' | null;
  learnt: string | null;
  events: LogLine[];
  /** The longest waits, the longest first. */
  waits: StepWait[];
}

/** All launches of a site with their logs, the newest first. */
export async function launchLogs(siteId: number): Promise<LaunchLog[]> {
  const launches = await Launch.findAll({ where: { siteId }, order: [['number', 'DESC']], limit: 20 });
  const events = await LaunchEvent.findAll({
    where: { launchId: launches.map((l) => l.id) },
    order: [['id', 'ASC']],
    limit: MOST_EVENTS,
  });
  return launches.map((l) => {
    const titles = new Map(l.template.steps.map((s) => [s.id, s.title]));
    const own = events.filter((e) => e.launchId === l.id);
    const doneAt = new Map(
      own.flatMap((e): [string, number][] =>
        e.stepId && (e.kind === 'done' || e.kind === 'proven') ? [[e.stepId, e.at.getTime()]] : [],
      ),
    );
    return {
      id: l.id,
      number: l.number,
      plannedAt: l.plannedAt.toISOString(),
      wentAt: l.wentAt?.toISOString() ?? null,
      wentBy: l.wentBy ?? null,
      endedAt: l.endedAt?.toISOString() ?? null,
      endedBy: l.endedBy ?? null,
      endedHow: l.endedHow ?? null,
      learnt: l.learnt ?? null,
      waits: waitsOf(l.template, doneAt).slice(0, MOST_WAITS),
      events: own.map((e) => ({
        kind: e.kind,
        step: e.stepId ? (titles.get(e.stepId) ?? e.stepId) : null,
        by: e.byName,
        at: e.at.toISOString(),
        text: e.text ?? null,
      })),
    };
  });
}

export interface StepStatistic {
  step: string;
  title: string;
  launches: number;
  wentBack: number;
  leftOut: number;
}

/** So many launches are counted: what was long ago teaches little. */
const COUNTED = 500;

/** Over the newest launches: which steps go back, and which are left out, the most often. */
export async function launchStatistics(): Promise<{
  launches: number;
  anyway: number;
  steps: StepStatistic[];
}> {
  const launches = await Launch.findAll({
    attributes: ['id', 'template', 'anyway', 'wentAt'],
    order: [['id', 'DESC']],
    limit: COUNTED,
  });
  const events = await LaunchEvent.findAll({
    where: { launchId: launches.map((l) => l.id), kind: { [Op.in]: ['went back', 'left out', 'undone'] } },
    attributes: ['launchId', 'stepId', 'kind'],
  });
  const titles = new Map(
    [...launches.flatMap((l) => l.template.steps), ...BUILT_IN_TEMPLATE.steps].map((s) => [s.id, s.title]),
  );
  const steps = new Map<string, StepStatistic>();
  for (const { stepId, kind } of events) {
    if (!stepId) continue;
    const one = steps.get(stepId) ?? {
      step: stepId,
      title: titles.get(stepId) ?? stepId,
      launches: launches.length,
      wentBack: 0,
      leftOut: 0,
    };
    if (kind === 'left out') one.leftOut++;
    else one.wentBack++;
    steps.set(stepId, one);
  }
  return {
    launches: launches.length,
    anyway: launches.filter((l) => l.anyway && l.wentAt).length,
    steps: [...steps.values()].sort((a, b) => b.wentBack - a.wentBack || b.leftOut - a.leftOut),
  };
}

/** The sheet as a file. @throws NotFound */
export async function launchFile(
  id: number,
  as: 'markdown' | 'icalendar',
): Promise<{ name: string; type: string; body: string }> {
  const launch = await Launch.findByPk(id);
  if (!launch) throw new NotFound(GONE);
  const site = await getSite(launch.siteId);
  const sheet = await sheetOfLaunch(launch);
  const name = `${plainName(site.name)}-launch`;
  if (as === 'icalendar')
    return {
      name: `${name}.ics`,
      type: 'text/calendar; charset=utf-8',
      body: launchCalendar({
        id,
        siteName: site.name,
        steps: sheet.steps,
        ends: sheet.ends.map((e) => ({ id: e.id, what: e.what, on: new Date(e.at) })),
        at: now(),
      }),
    };
  return {
    name: `${name}.md`,
    type: 'text/markdown; charset=utf-8',
    body: launchMarkdown({
      siteName: site.name,
      when: inZone(launch.plannedAt.getTime(), sheet.timeZone),
      moment: (at) => inZone(at, sheet.timeZone),
      steps: sheet.steps,
      go: sheet.go,
      accounts: await accountsOf(launch.siteId),
    }),
  };
}
