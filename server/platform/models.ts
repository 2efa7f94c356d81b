/** All models, each bound to its table once. */
import { bindModels as bindAudits } from '../audits/models';
import { bindModels as bindBuilds } from '../builds/models';
import { bindModels as bindChecklists } from '../checklists/models';
import { bindModels as bindFixes } from '../fixes/models';
import { bindModels as bindHosts } from '../hosts/models';
import { bindModels as bindPeople } from '../people/models';
import { bindModels as bindIntended } from '../intended/models';
import { bindModels as bindLaunches } from '../launch/models';
import { bindModels as bindPictures } from '../pictures/models';
import { bindModels as bindReports } from '../reports/models';
import { bindModels as bindFiles } from './files/files';
import { bindModels as bindSchedules } from '../schedules/models';
import { bindModels as bindSites } from '../sites/models';

let isReady = false;

export function useModels(): void {
  if (isReady) return;
  isReady = true;
  for (const bind of [
    bindPeople,
    bindSites,
    bindHosts,
    bindChecklists,
    bindAudits,
    bindFixes,
    bindIntended,
    bindFiles,
    bindPictures,
    bindBuilds,
    bindReports,
    bindLaunches,
    bindSchedules,
  ])
    bind();
}
