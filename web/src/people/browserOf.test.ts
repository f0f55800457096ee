import { expect, test } from "vitest";

import { browserOf } from "./browserOf";

test("a browser is said in a few words, and what nobody knows as it is", () => {
  expect(browserOf("Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) HeadlessChrome/156.0.0.0 Safari/537.36")).toBe("Chromium 156 on Linux");
  expect(browserOf("Mozilla/5.0 (Linux; Android 15; Pixel) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/150.0 Mobile Safari/537.36")).toBe("Chromium 150 on Android");
  expect(browserOf("Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605.1 (KHTML, like Gecko) Version/18.0 Mobile/15E Safari/604.1")).toBe("Safari 18 on an iPhone");
  expect(browserOf("Mozilla/5.0 (Windows NT 10.0; rv:140.0) Gecko/20100101 Firefox/140.0")).toBe("Firefox 140 on Windows");
  expect(browserOf("curl/8")).toBe("curl/8");
  expect(browserOf("")).toContain("nothing of itself");
});
