/** What other subjects and routes may use of fixes. */
export { checkAgain } from './check-again';
export { connectFixes } from './connect';
export { AcceptDto, FixChangeDto, FixIdsDto, FixesChangeDto, FixesDto, RecipeDto } from './dto';
export {
  acceptancesOf,
  checksMovedBy,
  fixWithHistory,
  fixesByIds,
  fixesOf,
  openFix,
  openFixOf,
} from './find';
export { acceptFix, changeFix, changeFixes, secondAcceptance, withdrawAcceptance } from './fixes';
export type { AcceptanceRow } from './models';
export { sweepOnce } from './sweep';
export { addEvents } from './update-fixes';
