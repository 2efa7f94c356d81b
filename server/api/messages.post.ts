import { readJson } from '../platform/http/body';
import { IsInt, Min, parseAs } from '../platform/http/validation';
import { markRead } from '../people/notifications';

class ReadDto {
  @IsInt() @Min(1) upTo!: number;
}

export default defineEventHandler(async (event) => {
  await markRead(event.context.person.id, (await parseAs(ReadDto, await readJson(event))).upTo);
  return { ok: true };
});
