import { cardUrl } from "../api/client";
import { useSettings } from "./settings";

type Props = { what: string; eventId: number; partId: number };

/** The card of a piece or of hung work, to print on either paper. */
export function CardLinks({ what, eventId, partId }: Props) {
  const { system } = useSettings();
  return (
    <span className="no-print ml-auto flex flex-none items-center gap-1 text-sm whitespace-nowrap">
      {what}
      {(["A4", "Letter"] as const).map((paper) => (
        <a
          key={paper}
          className="flex min-h-11 min-w-11 items-center justify-center px-1"
          href={cardUrl(eventId, partId, paper, system)}
          target="_blank"
          rel="noreferrer"
          aria-label={`${what}, ${paper}`}
        >
          {paper}
        </a>
      ))}
    </span>
  );
}
