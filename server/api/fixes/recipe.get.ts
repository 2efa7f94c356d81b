import { RecipeDto } from '../../fixes/dto';
import { faultRecipe } from '../../fixes/lists';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { check, environments } = await parseAs(RecipeDto, getQuery(event));
  return faultRecipe(check, environments.split(',').map(Number));
});
