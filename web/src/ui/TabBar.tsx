import { Tabs } from "radix-ui";
import type { ReactNode } from "react";

type Props = {
  label: string;
  /** What each tab is known by, and its words. */
  tabs: readonly (readonly [string, ReactNode])[];
  className?: string;
};

/** The tabs over what they open; on a narrow screen they are drawn along. */
export function TabBar({ label, tabs, className = "" }: Props) {
  return (
    <Tabs.List aria-label={label} className={`flex gap-1 overflow-x-auto ${className}`}>
      {tabs.map(([key, words]) => (
        <Tabs.Trigger
          key={key}
          value={key}
          className="serif min-h-11 flex-none whitespace-nowrap -outline-offset-4 border-0 border-b-3 border-transparent bg-transparent px-3 text-base text-soft data-[state=active]:border-leaf data-[state=active]:text-ink"
        >
          {words}
        </Tabs.Trigger>
      ))}
    </Tabs.List>
  );
}
