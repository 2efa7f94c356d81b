import { listClients } from '../../sites/clients';
import { ClientsDto } from '../../sites/dto';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) => listClients(await parseAs(ClientsDto, getQuery(event))));
