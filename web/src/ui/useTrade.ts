import { createContext, useContext } from "react";
import type { MechanicKind, Trade } from "../api/types";
import type { Kit } from "../drawing/seeing";

type About = Trade["mechanics"][number];
type AboutLine = Trade["lines"][number];

/** What the program describes once, and what drawings take from it. */
type Described = { readonly trade: Trade; readonly kit: Kit };

export const TradeContext = createContext<Described | undefined>(undefined);

/** What can be chosen, as the program describes it; it never changes while the program runs. */
export function useTrade(): Trade | undefined {
  return useContext(TradeContext)?.trade;
}

export function useMechanics(): readonly About[] {
  return useTrade()?.mechanics ?? [];
}

/** What the program says of one kind of mechanic; undefined until it has. */
export function useAbout(kind: MechanicKind): About | undefined {
  return useMechanics().find((each) => each.kind === kind);
}

/** Every kind of line with its fittings. */
export function useLines(): readonly AboutLine[] {
  return useTrade()?.lines ?? [];
}

/** Every form by its kind and in words. */
export function useForms(): readonly (readonly [string, string])[] {
  return (useTrade()?.forms ?? []).map((each) => [each.kind, each.name] as const);
}

type Shape = Trade["shapes"][number];

/** What a vessel can be seen from above, and whether such a one is as deep as it is wide. */
export function useShapes(): {
  readonly options: readonly (readonly [string, string])[];
  readonly even: (kind: Shape["kind"]) => boolean;
} {
  const every = useTrade()?.shapes ?? [];
  return {
    options: every.map((each) => [each.kind, each.kind] as const),
    even: (kind) => every.find((each) => each.kind === kind)?.even ?? false,
  };
}

type AboutPoint = Trade["hang_points"][number];

/** Every kind of hang point; the last ones are there so that the program can say why nothing hangs from them. */
export function useHangPoints(): {
  readonly options: readonly (readonly [string, string])[];
  readonly about: (kind: string) => AboutPoint | undefined;
} {
  const every = useTrade()?.hang_points ?? [];
  return {
    options: every.map((each) => [each.kind, each.never ? `${each.name} – never` : each.name] as const),
    about: (kind) => every.find((each) => each.kind === kind),
  };
}

/** What things are unless somebody says; undefined until the program has said it. */
export function useUsual(): Trade["usual"] | undefined {
  return useTrade()?.usual;
}

/** What a part can start as. */
export function useStarts(what: "standing or carried" | "hung"): Trade["starts"] {
  return (useTrade()?.starts ?? []).filter((each) => (each.kind === "rig") === (what === "hung"));
}

/** What heads and outlines look like; undefined until the program has said it. */
export function useKit(): Kit | undefined {
  return useContext(TradeContext)?.kit;
}
