/** What other subjects and routes may use of builds. */
export { MOST_BUILD_BYTES, buildState, hasBuild } from './builds';
export { changeBuild, forgetBuild } from './changing';
export { connectBuilds } from './connect';
