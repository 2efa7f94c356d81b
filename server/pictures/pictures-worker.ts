/** A process that reads and writes pictures. */
import { answerJobs } from '#server/platform/answer-jobs';
import { workOnPicture, type PictureJob } from './picture-bytes';

answerJobs<PictureJob>(workOnPicture);
