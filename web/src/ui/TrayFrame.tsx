import { ChevronDown, ChevronUp } from "lucide-react";
import { Tabs } from "radix-ui";
import type { ReactNode } from "react";
import { Button } from "./Button";
import { TabBar } from "./TabBar";
import { useAddress } from "./useAddress";
import { useNarrow } from "./useNarrow";

type Props = {
  label: string;
  tabs: readonly (readonly [string, ReactNode])[];
  /** What pulls it taller on a desk. */
  edge: ReactNode;
  /** What stands beside the drawing on a desk; on a phone it is the first tab, and `strip` leads to it. */
  verdicts: ReactNode;
  strip: (open: () => void) => ReactNode;
  className?: string;
  children: ReactNode;
};

/** What lies under a drawing, by tabs. On a phone it is a sheet that comes up from the bottom. */
export function TrayFrame({ label, tabs, edge, verdicts, strip, className = "", children }: Props) {
  const narrow = useNarrow();
  const every = narrow ? ([["verdicts", "Verdicts"], ...tabs] as const) : tabs;
  const keys = every.map(([key]) => key);
  const [tab, setTab] = useAddress<string>("tab", narrow ? ["", ...keys] : keys);
  const open = tab !== "";
  return (
    <Tabs.Root
      value={tab}
      onValueChange={setTab}
      data-sheet={open ? "open" : "away"}
      className={`relative col-start-1 row-start-2 flex min-h-0 flex-col border-t border-line max-lg:row-start-3 print:border-0 ${
        narrow && open ? "h-[52dvh] flex-none" : ""
      } ${className}`}
    >
      {edge}
      {narrow && strip(() => setTab("verdicts"))}
      <div className="no-print flex flex-none border-b border-line">
        {narrow && (
          <Button
            look="quiet"
            className="flex-none"
            aria-expanded={open}
            onClick={() => setTab(open ? "" : "verdicts")}
          >
            {open ? <ChevronDown size={18} aria-hidden="true" /> : <ChevronUp size={18} aria-hidden="true" />}
            <span className="sr-only">{open ? "Put the sheet away" : "Bring the sheet up"}</span>
          </Button>
        )}
        <TabBar label={label} tabs={every} className="min-w-0 flex-1 px-2 max-md:px-0" />
      </div>
      <div
        className={`min-h-0 flex-1 overflow-y-auto print:overflow-visible ${open ? "" : "hidden print:block"}`}
      >
        {narrow && <Tabs.Content value="verdicts">{verdicts}</Tabs.Content>}
        {children}
      </div>
    </Tabs.Root>
  );
}
