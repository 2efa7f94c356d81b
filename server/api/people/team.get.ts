import { team } from '#server/people';

export default defineEventHandler(async () => ({ people: await team() }));
