import { template } from '#server/reports';

export default defineEventHandler(() => template());
