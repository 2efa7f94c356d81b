import { markRead } from '#server/people';
import { readJson } from '#server/platform/http/body';
import { IsInt, Min, parseAs } from '#server/platform/http/validation';

class ReadDto {
  @IsInt() @Min(1) upTo!: number;
}

export default defineEventHandler(async (event) => {
  await markRead(event.context.person.id, (await parseAs(ReadDto, await readJson(event))).upTo);
  return { ok: true };
});
