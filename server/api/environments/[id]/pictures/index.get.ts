import { idOf } from '../../../../platform/http/route-parameters';
import { foundPictures } from '../../../../pictures/found-pictures';

export default defineEventHandler((event) => foundPictures(idOf(event)));
