import { listPeople } from '#server/people';

export default defineEventHandler(() => listPeople());
