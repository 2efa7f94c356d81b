import { SHORTEST_PASSWORD, team } from '../../people/people';

export default defineEventHandler(async () => ({
  people: await team(),
  shortestPassword: SHORTEST_PASSWORD,
}));
