import { useJob } from "../job/JobContext";
import { TextButton } from "../ui/TextButton";

/** Thing is a part or wire by its name, which picks it everywhere. */
export function Thing({ id, name }: { id: string; name: string }) {
  const { thing, pick } = useJob();
  return (
    <TextButton aria-pressed={thing === id} onClick={() => pick(thing === id ? null : id)}>
      {name}
    </TextButton>
  );
}
