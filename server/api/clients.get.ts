import { listClients } from '../sites/sites';

export default defineEventHandler(() => listClients());
