import { useMemo } from "react";

import { useSettings } from "./useSettings";

const months = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];
const two = (n: number): string => String(n).padStart(2, "0");

/** written is a day as a workshop writes it; style is how it writes the second of January 2006. */
export function written(year: number, month: number, day: number, style: string): string {
  switch (style) {
    case "02/01/2006":
      return `${two(day)}/${two(month)}/${year}`;
    case "01/02/2006":
      return `${two(month)}/${two(day)}/${year}`;
    case "2006-01-02":
      return `${year}-${two(month)}-${two(day)}`;
    default:
      return `${day} ${months[month - 1] ?? ""} ${year}`;
  }
}

/** dates writes days and moments in a style. */
export function dates(style: string) {
  const day = (at: Date) => written(at.getFullYear(), at.getMonth() + 1, at.getDate(), style);
  const clock = (at: Date) => `${two(at.getHours())}:${two(at.getMinutes())}`;
  return {
    /** A day without a time, as it is stored: 2006-01-02. */
    day: (stored: string): string => {
      const [y, m, d] = stored.split("-").map(Number);
      return y && m && d ? written(y, m, d, style) : stored;
    },
    /** A moment, to the minute. */
    moment: (stored: string): string => `${day(new Date(stored))}, ${clock(new Date(stored))}`,
    /** When something happened: the time today, the date before. */
    since: (stored: string): string => {
      const at = new Date(stored);
      return at.toDateString() === new Date().toDateString() ? clock(at) : day(at);
    },
  };
}

/** useDayStyle is how the workshop writes the second of January 2006. */
export function useDayStyle(): string {
  return useSettings().data?.settings.dates ?? "2 Jan 2006";
}

/** useDates writes dates as the workshop does. */
export function useDates() {
  const style = useDayStyle();
  return useMemo(() => dates(style), [style]);
}
