import { roster } from '../services/roster';

export default defineEventHandler(() => roster());
