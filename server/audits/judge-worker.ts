/** A thread that judges stored evidence. */
import { answerJobs } from '#server/platform/answer-jobs';
import { judgeBytes, type JudgeJob } from './judge-bytes';

answerJobs<JudgeJob>(async (job) => JSON.stringify(await judgeBytes(job)));
