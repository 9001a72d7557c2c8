/** Sends a write over a revision of the stores: the newest this window knows, or the one it was told of in a conflict. */
export type Write = (base: number) => Promise<unknown>;

/** One write in the line of this window. Tells whether it went well. */
export type Attempt = (write: Write) => Promise<boolean>;
