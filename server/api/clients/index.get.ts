import { parseAs } from '#server/platform/http/validation';
import { listClients, ClientsDto } from '#server/sites';

export default defineEventHandler(async (event) => listClients(await parseAs(ClientsDto, getQuery(event))));
