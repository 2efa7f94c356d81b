/** IDs of analytics within texts. */

/** Shapes of IDs in use (common practice, from memory): a short prefix, a dash and a code. */
export const ID_SHAPE = /\b(?:G-[A-Z0-9]{6,12}|UA-\d{4,10}-\d{1,4}|GTM-[A-Z0-9]{5,8})\b/;

/** Whether a text names an ID, and not a longer one that begins or ends like it. */
export function namesId(text: string | undefined, id: string): boolean {
  for (let at = text?.indexOf(id) ?? -1; at >= 0; at = text!.indexOf(id, at + 1))
    if (!/[A-Za-z0-9]/.test(text![at - 1] ?? '') && !/[A-Za-z0-9]/.test(text![at + id.length] ?? ''))
      return true;
  return false;
}
