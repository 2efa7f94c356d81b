/** What other subjects and routes may use of comparing. */
export { compareAudits, sidesOf } from './comparing';
export { CompareDto, DrawnDto } from './dto';
export { drawnDifference, picturePairs } from './picture-pairs';
