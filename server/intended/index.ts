/** What other subjects and routes may use of intended. */
export { changeTexts } from './changing';
export { connectTexts } from './connect';
export { SeenInDto, TextPathDto, TextsDto } from './dto';
export { intendedFor, textsOf, versionsOf } from './texts';
