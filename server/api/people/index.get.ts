import { listPeople } from '../../people/people';

export default defineEventHandler(() => listPeople());
