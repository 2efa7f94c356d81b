import { listClients, ClientsDto } from '#server/sites';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => listClients(await parseAs(ClientsDto, getQuery(event))));
