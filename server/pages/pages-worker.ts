/** A thread that makes tables of pages. */
import { answerJobs } from '#server/platform/answer-jobs';
import { pagesFromBytes, type PagesJob } from './page-bytes';

answerJobs<PagesJob>(pagesFromBytes);
