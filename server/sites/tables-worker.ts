/** A thread that reads tables of sites. */
import { answerJobs } from '#server/platform/answer-jobs';
import { readTable, type TableJob } from './table-bytes';

answerJobs<TableJob>(readTable);
