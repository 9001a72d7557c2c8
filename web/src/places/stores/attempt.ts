/** Sends an act over a revision of the stores: the newest this window knows, or the one it was told of in a conflict. */
export type Act = (base: number) => Promise<unknown>;

/** One act in the line of this window. Tells whether it went well. */
export type Attempt = (act: Act) => Promise<boolean>;
