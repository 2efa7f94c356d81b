import { listClients } from '../../sites/clients';

export default defineEventHandler(() => listClients());
