import { roster } from '../sites/roster';

export default defineEventHandler(() => roster());
