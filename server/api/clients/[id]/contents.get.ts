import { idOf } from '../../../platform/http/route-parameters';
import { clientContents } from '../../../sites/contents';

export default defineEventHandler((event) => clientContents(idOf(event)));
