import { RecipeDto } from '#server/fixes';
import { parseAs } from '#server/platform/http/validation';
import { faultRecipe } from '#server/reads/fixes';

export default defineEventHandler(async (event) => {
  const { check, environments } = await parseAs(RecipeDto, getQuery(event));
  return faultRecipe(check, environments.split(',').map(Number));
});
