import type { Chosen, Stock } from "../../api/types";

/**
 * Sends a write over a revision of the stores, with what was chosen where another window changed the same; `known` is
 * how this window knew them when it was this write's turn, after those before it.
 */
export type Write = (base: number, chosen: Chosen | null, known: Stock) => Promise<unknown>;

/** One write in the line of this window. Tells whether it went well. */
export type Attempt = (write: Write) => Promise<boolean>;
