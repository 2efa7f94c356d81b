/** What the keys of the ledger do. */
export interface LedgerKeys {
  move(by: number): void;
  openEvidence(): void;
  close(): void;
  walk(): void;
  act(what: LedgerAct): void;
}
export type LedgerAct = 'accept' | 'assign' | 'attest' | 'adopt';

/** Listens while the ledger is shown. */
export function useLedgerKeys(keys: LedgerKeys): void {
  useScreenKeys({
    j: () => keys.move(1),
    arrowdown: () => keys.move(1),
    k: () => keys.move(-1),
    arrowup: () => keys.move(-1),
    w: () => keys.walk(),
    enter: () => keys.openEvidence(),
    escape: () => keys.close(),
    a: () => keys.act('accept'),
    o: () => keys.act('assign'),
    t: () => keys.act('attest'),
    b: () => keys.act('adopt'),
  });
}
