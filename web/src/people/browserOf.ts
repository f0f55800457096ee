const browsers: [RegExp, string][] = [
  [/Edg\/(\d+)/, "Edge"],
  [/Firefox\/(\d+)/, "Firefox"],
  [/(?:Chrome|Chromium|CriOS)\/(\d+)/, "Chromium"],
  [/Version\/(\d+).*Safari/, "Safari"],
];
const systems: [RegExp, string][] = [
  [/Android/, "Android"],
  [/iPhone/, "an iPhone"],
  [/iPad/, "an iPad"],
  [/Windows/, "Windows"],
  [/Mac OS X/, "a Mac"],
  [/Linux/, "Linux"],
];

/** browserOf is what a browser says of itself, in a few words; where it says what nobody knows, as it says it. */
export function browserOf(agent: string): string {
  const [browser] = browsers.flatMap(([is, name]) => {
    const found = is.exec(agent);
    return found ? [`${name} ${found[1] ?? ""}`.trim()] : [];
  });
  const system = systems.find(([is]) => is.test(agent))?.[1];
  if (!browser) return agent || "a browser that says nothing of itself";
  return system ? `${browser} on ${system}` : browser;
}
