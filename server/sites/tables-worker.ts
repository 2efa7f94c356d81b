/** A thread that reads tables of sites. */
import { answerJobs } from '../platform/answer-jobs';
import { readTable, type TableJob } from './table-bytes';

answerJobs<TableJob>(readTable);
