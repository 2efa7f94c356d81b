import { PlaceDto } from '../../../dto/sites';
import { parseAs } from '../../../dto/validation';
import { addPlace } from '../../../services/places';
import { idOf } from '../../../services/route-parameters';

export default defineEventHandler(async (event) => ({
  id: await addPlace(idOf(event), await parseAs(PlaceDto, await readBody(event))),
}));
