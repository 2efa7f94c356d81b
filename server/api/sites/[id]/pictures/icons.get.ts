import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';
import { IconsDto } from '../../../../pictures/dto';
import { iconsLookOf } from '../../../../pictures/pictures';

export default defineEventHandler(async (event) => {
  const { environment, ...settings } = await parseAs(IconsDto, getQuery(event));
  return iconsLookOf(idOf(event), environment, settings);
});
