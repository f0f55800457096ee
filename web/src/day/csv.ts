import type { Trial } from "./useTrial";

/** rows of the run as shown, as CSV (RFC 4180). */
export function rowsOf(trial: Trial): string {
  const s = trial.series;
  const head = ["time s", "vehicle", "start battery V", "coupling in V", "coupling out V", "aux battery V", "alternator A", "start battery A", "aux battery A", "solar A", "start battery %", "aux battery %", "alternator C", "charger C", "cable C", "coupling"];
  const lines = s.t.map((t, i) =>
    [t, s.kind[i], s.busV[i], s.inV[i], s.outV[i], s.auxV[i], s.machineA[i], s.startA[i], s.auxA[i], s.solarA[i], s.startSOC[i], s.auxSOC[i], s.windingC[i], s.caseC[i], s.cableC[i], s.stage[i]].join(","),
  );
  return [head.join(","), ...lines].join("\r\n") + "\r\n";
}
