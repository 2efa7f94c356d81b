import { listClients } from '../services/sites';

export default defineEventHandler(() => listClients());
