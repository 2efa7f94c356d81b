/** Escapes text for use inside an element or attribute that is offered for pasting. */
export function escapeText(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
}

/** The tag that holds a page’s title or description, offered for pasting. */
export const textTag = (field: 'title' | 'description', text: string): string =>
  field === 'title'
    ? `<title>${escapeText(text)}</title>`
    : `<meta name="description" content="${escapeText(text)}">`;
