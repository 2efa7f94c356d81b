/** What other subjects and routes may use of people. */
export { connectPeople } from './connect';
export {
  LinkPasswordDto,
  MessagesDto,
  PasswordDto,
  PersonChangeDto,
  PersonDto,
  ScreenDto,
  SignInDto,
  ViewDto,
} from './dto';
export { everybody, findMember, findPerson, peopleByIds } from './find';
export { knownBrowser, rememberBrowser } from './known-browser';
export type { Person } from './models';
export { accountOwners, markRead, messagesFor, notify, siteOwners } from './notifications';
export {
  addPerson,
  addressOf,
  changePassword,
  changePerson,
  ensureFirstPerson,
  ensurePerson,
  listPeople,
  passwordLink,
  removePerson,
  setPasswordByLink,
  signIn,
  team,
} from './people';
export {
  beginSession,
  endAllSessions,
  endSession,
  endSessionByKey,
  isSessionGood,
  sessionPerson,
  sessionsOf,
} from './sessions';
export { tallies } from './tallies';
export { Throttle } from './throttle';
export { deleteView, saveView, viewsOf } from './views';
