/** The forms of a site, each once, though it stands on many pages. */
import type { PageFacts } from '#core/extract/html';
import type { ReadPage } from '#core/checks/view/read-page';

export interface FoundForm {
  name: string;
  page: string;
  form: PageFacts['forms'][number];
}

/** Forms that send something: a search box alone is none. The same form on many pages is one. */
export function formsOf(pages: readonly ReadPage[]): FoundForm[] {
  const found = new Map<string, FoundForm>();
  for (const page of pages)
    for (const form of page.facts.forms) {
      const fields = form.fields.filter(
        (f) => f.type !== 'hidden' && f.type !== 'submit' && f.type !== 'button',
      );
      if (
        !fields.length ||
        fields.every((f) => f.type === 'search' || /^(?:q|s|search|query)$/i.test(f.name))
      )
        continue;
      const key = `${form.id ?? ''}\n${form.action}\n${fields.map((f) => f.name).join()}`;
      if (!found.has(key))
        found.set(key, {
          name: `${
            form.id
              ? `#${form.id}`
              : fields
                  .map((f) => f.name)
                  .filter(Boolean)
                  .slice(0, 3)
                  .join(', ') || 'form'
          } at ${page.url}`.slice(0, 300),
          page: page.url,
          form,
        });
    }
  return [...found.values()];
}
