const day = new Intl.DateTimeFormat(undefined, { dateStyle: "medium" });
const clock = new Intl.DateTimeFormat(undefined, { hour: "2-digit", minute: "2-digit" });

/** since is when something happened: the time today, the date before. */
export function since(when: string): string {
  const at = new Date(when);
  return at.toDateString() === new Date().toDateString() ? clock.format(at) : day.format(at);
}
