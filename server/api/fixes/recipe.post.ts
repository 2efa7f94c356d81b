import { RecipeDto } from '../../fixes/dto';
import { faultRecipe } from '../../fixes/lists';
import { readJson } from '../../platform/http/body';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { check, environmentIds } = await parseAs(RecipeDto, await readJson(event));
  return faultRecipe(check, environmentIds);
});
