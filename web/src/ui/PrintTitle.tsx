/** What a printed page is of; on the screen the bar says it. */
export function PrintTitle({ children }: { children: string }) {
  return <p className="print-only serif m-0 px-3 pb-2 text-2xl [overflow-wrap:anywhere]">{children}</p>;
}
