import { listPeople } from '../services/people';

export default defineEventHandler(() => listPeople());
