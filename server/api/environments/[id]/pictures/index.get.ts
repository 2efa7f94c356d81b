import { foundPictures } from '#server/pictures';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => foundPictures(idOf(event)));
