import { template } from '../../reports/template';

export default defineEventHandler(() => template());
