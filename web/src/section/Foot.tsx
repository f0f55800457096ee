import { useShown } from "../job/JobContext";
import { SheetTabs } from "../job/SheetTabs";
import css from "./foot.module.css";
import { Notes } from "./Notes";
import { TitleBlock } from "./TitleBlock";

/** Foot is what stands under the section: its notes, the way to the other sheets, the title block. */
export function Foot({ state }: { state: string }) {
  const { sheets } = useShown();
  return (
    <div className={css.foot}>
      <div className={css.footLeft}>
        <div className="wideOnly">
          <Notes />
        </div>
        {sheets.length > 0 && <SheetTabs />}
      </div>
      <TitleBlock sheet="Sheet 1, section" state={state} />
    </div>
  );
}
