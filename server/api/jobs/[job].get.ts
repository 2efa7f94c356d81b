import { jobById } from '../../services/jobs';

export default defineEventHandler((event) => jobById(getRouterParam(event, 'job') ?? ''));
