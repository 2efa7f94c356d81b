/** A thread that compares audits. */
import { answerJobs } from '#server/platform/answer-jobs';
import { compareBytes, type CompareJob } from './compare-bytes';

answerJobs<CompareJob>(async (job) => JSON.stringify(await compareBytes(job)));
