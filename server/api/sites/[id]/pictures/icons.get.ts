import { IconsDto, iconsLookOf } from '#server/pictures';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { environment, ...settings } = await parseAs(IconsDto, getQuery(event));
  return iconsLookOf(idOf(event), environment, settings);
});
