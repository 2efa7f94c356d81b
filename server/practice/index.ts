/** What other subjects and routes may use of practice. */
export {
  DeskDto,
  DeskOfDto,
  FaultSwitchDto,
  PracticeClockDto,
  PracticeNightDto,
  TypeTextsDto,
  UploadPicturesDto,
} from './dto';
export { beginNight, endNight } from './night';
export {
  alignPracticeClock,
  changeDesk,
  loadDemo,
  practiceControl,
  practiceDesk,
  practiceState,
  setPracticeRate,
  switchFault,
  typeTexts,
  uploadPictures,
} from './practice';
