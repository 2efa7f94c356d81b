import { team } from '../../people/people';

export default defineEventHandler(async () => ({ people: await team() }));
