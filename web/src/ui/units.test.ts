import { afterEach, describe, expect, it } from "vitest";

import rows from "../../../testdata/units.json";
import { asTyped, figure, listOf, meant, read, typed, writeIn } from "./units";

afterEach(() => writeIn(undefined));

describe("figures in other units", () => {
  it.each(rows)("$value $unit in $units", ({ value, unit, digits, units, said }) => {
    expect(figure(value, unit, digits, read(units))).toBe(said);
  });

  it("reads the list that it writes", () => {
    expect(listOf(read("awg,ft,F,lbft"))).toBe("awg,ft,F,lbft");
    expect(listOf(read(""))).toBe("mm2,m,C,Nm");
  });
});

describe("what is typed", () => {
  it("is in the unit that the field is shown in, where it names none", () => {
    expect(meant("12", "m")).toBe("12");
    writeIn(read("ft,F"));
    expect(meant("12", "m")).toBe("12\u00a0ft");
    expect(meant("3,5", "mm")).toBe("3,5\u00a0in");
    expect(meant("95", "°C")).toBe("95\u00a0°F");
    expect(meant("12", "A")).toBe("12");
    for (const text of ["12 ft 6", "2.3 m", "12.", "", "x"]) expect(typed(meant(text, "m"))).toBe(text.trim());
    expect(meant("2.3 m", "m")).toBe("2.3 m");
  });

  it("is shown again as somebody would type it", () => {
    expect(asTyped(2.5, "m")).toBe("2.5 m");
    writeIn(read("ft,F"));
    expect(asTyped(3.6576, "m")).toBe("12 ft");
    expect(asTyped(330.2, "mm")).toBe("13 in");
    expect(asTyped(35, "°C")).toBe("95 °F");
    expect(asTyped(37.78, "°C")).toBe("100.0 °F");
    expect(asTyped(30, "A")).toBe("30 A");
  });
});
