/** What the practice net's screens send. */
import { IsBoolean } from '../platform/http/validation';

export class PracticeNightDto {
  /** Begin a night, or go back to the real time. */
  @IsBoolean() on!: boolean;
}
