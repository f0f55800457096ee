import { FoundRows } from "../found/FoundRows";

/** Fitted is what was really fitted, by serial number and lot: a recall finds the vehicle by them in the search over jobs. */
export function Fitted() {
  return (
    <section aria-label="Serial numbers and lots">
      <h2>What was fitted</h2>
      <p className="soft">Serial numbers and lots. The list of jobs finds a vehicle by any of them: for a recall.</p>
      <FoundRows list="fitted" fields={["what", "serial", "lot"]} add="Add a part" first={["what", "charger"]} />
    </section>
  );
}
