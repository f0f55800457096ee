import { Button } from "@mantine/core";

import css from "./jobs.module.css";

/** First is the page of a workshop that has no job yet: it begins with one. */
export function First({ designs, busy, begin, trace }: { designs: boolean; busy: boolean; begin: () => void; trace: () => void }) {
  if (!designs) return <p className="soft">No jobs yet. Whoever designs begins the first one.</p>;
  return (
    <section className={css.first} aria-label="The first job">
      <h2>No jobs yet. Begin with a vehicle that stands in the yard.</h2>
      <ol>
        <li>
          <b>Begin a job.</b> It opens with a whole plan; whatever nobody has answered yet is assumed, and says so.
        </li>
        <li>
          <b>Give six answers:</b> the kind of vehicle, the figure on the alternator&apos;s label, the aux battery and its size, where it sits, what is used on a day, and the hours driven. The section then shows where the volts go.
        </li>
        <li>
          <b>Settle what the section asks next,</b> until there is nothing left to ask: then issue the job, cut and fit by its steps, and prove it with a meter.
        </li>
      </ol>
      <div className="row">
        <Button size="lg" loading={busy} onClick={begin}>
          Begin the first job
        </Button>
        <Button size="lg" variant="default" loading={busy} onClick={trace}>
          A vehicle came with a fault: trace it
        </Button>
      </div>
      <p className="soft">A job that was made elsewhere is read with “Import a file”.</p>
    </section>
  );
}
