import { useShown } from "../job/JobContext";
import { Sheet } from "../job/Sheet";
import { Foot } from "./Foot";
import { QuestionLine } from "./QuestionLine";
import { Section } from "./Section";

/** SectionSheet is sheet 1: the next open question, the section, its notes. */
export default function SectionSheet() {
  const { revision } = useShown();
  return (
    <Sheet name="section" foot={<Foot state={revision ? `draft after revision ${revision}` : "draft, never issued"} />}>
      <QuestionLine />
      <Section />
    </Sheet>
  );
}
