import { useEffect } from "react";

import { takeDay } from "../offline/along";
import { useAway } from "../offline/useWaits";
import { useMe } from "../ui/useMe";
import { useDay } from "./day";

/** DayAlong takes the day's jobs along by itself, on devices that want that. */
export function DayAlong() {
  const [day] = useDay();
  const away = useAway();
  const person = useMe()?.person?.id;
  useEffect(() => {
    if (!day || away || !person) return;
    const bring = () => void takeDay().catch(() => undefined); // tried again
    const first = setTimeout(bring, 3000); // the page comes first
    const again = setInterval(bring, 3_600_000);
    return () => {
      clearTimeout(first);
      clearInterval(again);
    };
  }, [day, away, person]);
  return null;
}
