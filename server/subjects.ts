/** All subjects. Handlers of one event run in this order. */
import { connectAudits } from '#server/audits';
import { connectBuilds } from '#server/builds';
import { connectChecklists } from '#server/checklists';
import { connectFixes } from '#server/fixes';
import { connectTexts } from '#server/intended';
import { connectLaunches } from '#server/launch';
import { connectPeople } from '#server/people';
import { connectStanding } from '#server/reads/standing';
import { connectReports } from '#server/reports';
import { connectSchedules } from '#server/schedules';
import { connectSites } from '#server/sites';

let isConnected = false;

/** Connects the subjects once per process, before anything else. */
export function connectSubjects(): void {
  if (isConnected) return;
  isConnected = true;
  connectPeople();
  connectSites();
  connectChecklists();
  connectAudits();
  connectFixes();
  connectBuilds();
  connectTexts();
  connectReports();
  connectLaunches();
  connectSchedules();
  connectStanding();
}
