import {
  type ComponentProps,
  createContext,
  type ReactNode,
  useContext,
  useEffect,
  useMemo,
  useRef,
} from "react";
import type { Edit } from "../api/types";
import { Button } from "../ui/Button";

/** How long a pointer rests on a press before it is shown what that would make. */
const RESTS_MS = 350;

type Hand = {
  readonly edit: (what: Edit) => void;
  readonly see: (what: Edit) => Promise<void>;
  readonly unsee: () => void;
};
const Hands = createContext<Hand | null>(null);

/** What is done to the part at the desk by presses within. */
export function Editing({ edit, see, unsee, children }: Hand & { children: ReactNode }) {
  const hand = useMemo(() => ({ edit, see, unsee }), [edit, see, unsee]);
  return <Hands.Provider value={hand}>{children}</Hands.Provider>;
}

/** A press that is an edit: pointed at, the drawing shows what it would make; pressed, it is made. */
export function EditButton({ what, ...rest }: ComponentProps<typeof Button> & { what: Edit }) {
  const hand = useContext(Hands);
  const rests = useRef(0);
  const shown = useRef(false);
  const leave = () => {
    clearTimeout(rests.current);
    if (shown.current) hand?.unsee();
    shown.current = false;
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: only where the press itself goes
  useEffect(() => leave, []);
  const point = () => {
    clearTimeout(rests.current);
    rests.current = window.setTimeout(() => {
      shown.current = true;
      hand?.see(what).catch(() => undefined);
    }, RESTS_MS);
  };
  return (
    <Button
      {...rest}
      onPointerEnter={(event) => event.pointerType === "mouse" && point()}
      onPointerLeave={leave}
      onClick={() => {
        clearTimeout(rests.current);
        shown.current = false;
        hand?.edit(what);
      }}
    />
  );
}
