import { shownKeys } from './shown';

/** A key beside what it does. */
export const Kbd = ({ children }: { children: string }) => (
  <kbd className="numbers text-[10px]">{shownKeys(children)}</kbd>
);
