/** heard is a small store that pages listen to, as useSyncExternalStore has it. */
export function heard<T>(first: T) {
  let value = first;
  const listeners = new Set<() => void>();
  return {
    now: () => value,
    set(next: T) {
      if (next === value) return;
      value = next;
      for (const l of listeners) l();
    },
    listen(l: () => void) {
      listeners.add(l);
      return () => void listeners.delete(l);
    },
  };
}
