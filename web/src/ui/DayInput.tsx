import "@mantine/dates/styles.layer.css";

import { DateInput } from "@mantine/dates";
import dayjs from "dayjs";
import customParse from "dayjs/plugin/customParseFormat";
import type { ReactNode } from "react";

import { useDayStyle } from "./useDates";

dayjs.extend(customParse);

/** ofStyle are the workshop's ways to write a day, as the picker knows them. */
const ofStyle: Record<string, string> = { "2 Jan 2006": "D MMM YYYY", "02/01/2006": "DD/MM/YYYY", "01/02/2006": "MM/DD/YYYY", "2006-01-02": "YYYY-MM-DD" };

/** What else is understood as it is typed; a day before its month unless the workshop writes otherwise. */
const understood = ["YYYY-MM-DD", "D MMM YYYY", "D MMMM YYYY", "D.M.YYYY"];

const stored = "YYYY-MM-DD";

interface Props {
  label: string | undefined;
  named: string;
  /** As it is stored: 2006-01-02; empty for none. */
  value: string;
  description?: ReactNode;
  error?: ReactNode;
  readOnly?: boolean;
  max?: string;
  onDay: (day: string) => void;
  onLeave?: () => void;
}

/** DayInput takes a day as the workshop writes it, typed or picked, never as the browser's country does. */
export default function DayInput({ label, named, value, description, error, readOnly = false, max, onDay, onLeave }: Props) {
  const style = ofStyle[useDayStyle()] ?? "D MMM YYYY";
  const read = (text: string) => {
    const day = dayjs(text.trim(), [style, ...(style === "MM/DD/YYYY" ? ["M/D/YYYY"] : ["D/M/YYYY"]), ...understood], true);
    return day.isValid() ? day.format(stored) : null;
  };
  return (
    <DateInput
      wrapperProps={{ "data-quantity": true }}
      label={label}
      aria-label={named}
      description={description}
      error={error}
      readOnly={readOnly}
      clearable={!readOnly}
      valueFormat={style}
      placeholder={dayjs("2027-03-07").format(style)}
      dateParser={read}
      maxDate={max}
      value={value || null}
      onChange={(day) => onDay(day ?? "")}
      onBlur={onLeave}
    />
  );
}
