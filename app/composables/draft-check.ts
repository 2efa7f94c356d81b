/** A form's draft, checked as it is typed by the same classes that the server uses. */
import { checkDraft, type CheckedDraft } from '#core/entry/check-draft';
import { quantity } from '#core/text/quantity';
import type { Draft, FieldGroup } from '#core/entry/field-text';
import type { Ref } from 'vue';

export function useDraftCheck(
  groups: readonly FieldGroup[],
  shape: new () => object,
  draft: Ref<Draft>,
  extra: () => Record<string, unknown>,
) {
  const faults = ref<Record<string, string[]>>({});
  const others = ref<string[]>([]);
  let turn = 0;
  async function check(): Promise<CheckedDraft> {
    const mine = ++turn;
    const got = await checkDraft(groups, shape, draft.value, extra());
    if (mine === turn) {
      faults.value = got.faults;
      others.value = got.others;
    }
    return got;
  }
  let timer: ReturnType<typeof setTimeout> | undefined;
  watch(
    () => [draft.value, extra()],
    () => {
      clearTimeout(timer);
      timer = setTimeout(() => void check(), 200);
    },
    { deep: true },
  );
  onBeforeUnmount(() => clearTimeout(timer));
  const count = (got: CheckedDraft): number => Object.keys(got.faults).length + got.others.length;
  /** Every fault shows, not only those of fields that were left. */
  const all = ref(false);
  async function showFirst(): Promise<void> {
    await nextTick();
    document.querySelector('.v-input--error')?.scrollIntoView({ block: 'center' });
  }
  /**
   * Before saving: the draft when it is without faults; else a sentence, and the first fault is brought into
   * sight.
   */
  async function whole(): Promise<{ got: CheckedDraft; fault: string }> {
    all.value = true;
    const got = await check();
    const n = count(got);
    if (n) await showFirst();
    return {
      got,
      fault: n ? `${quantity(n, 'field needs', 'fields need')} a look before this can be saved.` : '',
    };
  }
  return { faults, others, all, check, whole, showFirst };
}
