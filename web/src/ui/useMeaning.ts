import type { Trade } from "../api/types";
import { useTrade } from "./useTrade";

const sorted = new WeakMap<Trade, ReadonlyMap<string, string>>();

function meanings(trade: Trade): ReadonlyMap<string, string> {
  const known = sorted.get(trade);
  if (known) return known;
  const every = new Map(
    trade.glossary.flatMap(({ word, meaning }) =>
      word.split(", ").map((each) => [each.toLowerCase(), meaning] as const),
    ),
  );
  sorted.set(trade, every);
  return every;
}

/** What a word on the screen means by the glossary; what stands in brackets after it does not count. */
export function useMeaning(word: string): string | undefined {
  const trade = useTrade();
  return trade && meanings(trade).get(bare(word));
}

/** "Layer gap (empty: worked out)" is a layer gap. */
function bare(word: string): string {
  return word.replace(/ *\(.*\)$/, "").toLowerCase();
}
