/** In which words results are said: a short digest of all sentences and titles. */
import { CATALOGUE } from '#core/checks/catalogue/index';
import { englishMessages } from '#core/text/messages';
import { digestOf } from '#core/text/digest';

let known: string | undefined;

/** Eight hexadecimal digits; they change when a sentence, title or fault is worded in another way. */
export function wordingVersion(): string {
  return (known ??= digestOf(
    JSON.stringify([[...englishMessages()].sort(), CATALOGUE.map((c) => [c.id, c.title, c.fault])]),
  ));
}
