import type { Chosen } from "../../api/types";

/** Sends a write over a revision of the stores, with what was chosen where another window changed the same. */
export type Write = (base: number, chosen: Chosen | null) => Promise<unknown>;

/** One write in the line of this window. Tells whether it went well. */
export type Attempt = (write: Write) => Promise<boolean>;
