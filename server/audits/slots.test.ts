import { describe, expect, it } from 'vitest';
import { giveSlot, hasSlot, inSlot, takeSlot, whenFree } from './slots';

/** Work that ends when it is told to. */
function held() {
  let end!: () => void;
  const work = new Promise<void>((resolve) => {
    end = resolve;
  });
  return { end, work: () => work };
}
const signal = (): AbortSignal => new AbortController().signal;

describe('looking at the network', () => {
  it('two at once, whoever asks; a person who waits comes before what is queued', async () => {
    const order: string[] = [];
    whenFree(() => order.push('queue'));
    const [one, two] = [held(), held()];
    const first = inSlot(signal(), one.work);
    const second = inSlot(signal(), two.work);
    expect(hasSlot()).toBe(false);
    const third = inSlot(signal(), () => Promise.resolve(order.push('person')));
    one.end();
    await first;
    await third;
    two.end();
    await second;
    expect(order[0]).toBe('person');
    expect(hasSlot()).toBe(true);
  });

  it('who leaves while waiting takes no slot', async () => {
    takeSlot();
    takeSlot();
    const left = new AbortController();
    const waiting = inSlot(left.signal, () => Promise.reject(new Error('must not run')));
    left.abort(new Error('gone'));
    await expect(waiting).rejects.toThrow('gone');
    giveSlot();
    expect(hasSlot()).toBe(true);
    giveSlot();
  });

  it('work that fails gives its slot back', async () => {
    for (let i = 0; i < 3; i++)
      await expect(inSlot(signal(), () => Promise.reject(new Error('no')))).rejects.toThrow('no');
    expect(hasSlot()).toBe(true);
  });
});
