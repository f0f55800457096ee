import { Fieldset } from "../ui/Fieldset";
import { FieldInput } from "./FieldInput";
import { fieldOf, useJob } from "./JobContext";

/** Fields asks several fields side by side, as many as there is room for; a path that this job has no field for is left out. */
export function Fields({ paths, brief }: { paths: string[]; /** without saying why a value is assumed */ brief?: boolean }) {
  return (
    <Fieldset>
      <FieldInputs paths={paths} brief={brief} />
    </Fieldset>
  );
}

/** FieldInputs are the same without their frame, for a row that has its own. */
export function FieldInputs({ paths, brief = false }: { paths: string[]; brief?: boolean | undefined }) {
  const job = useJob();
  return paths.flatMap((path) => fieldOf(job, path) ?? []).map((f) => <FieldInput key={f.path} field={f} brief={brief} />);
}
