import { lazy, useEffect } from "react";

const load = () => import("./PartPanel");

/** PartPanel is what is in a part: loaded when one is opened, or once the section stands. */
export const PartPanel = lazy(load);

/** useFetched fetches it once the section stands, so that a part opens while the server is away too. */
export function useFetched() {
  useEffect(() => {
    const later = setTimeout(() => void load().catch(() => undefined), 800);
    return () => clearTimeout(later);
  }, []);
}
