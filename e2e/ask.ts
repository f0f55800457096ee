/** cookies are those of the demo's foreman, by where the application is. */
const cookies = new Map<string, string>();

interface Me {
  others: { id: string; name: string; role: string }[];
}

/** cookieOf is the cookie of somebody of the demo at an application. */
export async function cookieOf(origin: string, role: string): Promise<string> {
  const me = (await (await fetch(`${origin}/api/me`)).json()) as Me;
  const person = me.others.find((o) => o.role === role)?.id;
  const res = await fetch(`${origin}/api/door/demo`, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ person }) });
  if (!res.ok) throw new Error(`nobody came in: ${await res.text()}`);
  return (res.headers.get("set-cookie") ?? "").split(";")[0] ?? "";
}

/** ask fetches something as the demo's foreman. */
export async function ask(address: string, init: RequestInit = {}): Promise<Response> {
  const { origin } = new URL(address);
  const send = (cookie: string) => fetch(address, { ...init, headers: { ...init.headers, Cookie: cookie } });
  const cookie = cookies.get(origin) ?? (await cookieOf(origin, "foreman"));
  cookies.set(origin, cookie);
  return send(cookie);
}
