/** A thread that reads uploaded builds. */
import { answerJobs } from '#server/platform/answer-jobs';
import { readBuild, type BuildJob } from './read-build';

answerJobs<BuildJob>(readBuild);
