import { useEffect } from "react";

/** useAwake keeps the screen from going dark while a page of it is open and looked at: hands are elsewhere. Browsers do so where they trust the address. */
export function useAwake() {
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    let gone = false;
    const hold = async () => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      try {
        const got = await navigator.wakeLock.request("screen");
        if (gone) void got.release();
        else lock = got;
      } catch {
        // the device saves power: then it goes dark as it does
      }
    };
    void hold();
    document.addEventListener("visibilitychange", hold); // it is let go when one looks elsewhere
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", hold);
      void lock?.release();
    };
  }, []);
}
