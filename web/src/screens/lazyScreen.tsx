import { type ComponentType, lazy } from "react";
import { Button } from "../ui/Button";
import { TopBar } from "../ui/TopBar";

type Load = () => Promise<ComponentType>;
const loads: Load[] = [];

/** A place whose script is fetched when it is opened first, or before, once the window has nothing else to do. */
export function lazyScreen(load: Load) {
  loads.push(load);
  return lazy(async () => ({ default: await load().catch(() => Unreached) }));
}

/** Fetches the scripts of all places, one after the other, so that each opens also while the program is away. */
export function fetchPlaces(): void {
  const [next, ...rest] = loads.splice(0);
  if (!next) return;
  loads.push(...rest);
  const go = () => void next().then(fetchPlaces, () => loads.push(next));
  // not every browser tells when it has nothing to do
  if ("requestIdleCallback" in window) requestIdleCallback(go, { timeout: 2000 });
  else setTimeout(go, 200);
}

/** What is shown while a place's own script comes. */
export function Opening() {
  return (
    <>
      <TopBar />
      <p className="p-6" role="status">
        Opening…
      </p>
    </>
  );
}

function Unreached() {
  return (
    <>
      <TopBar />
      <div className="p-6">
        <p role="alert" className="mt-0">
          The program does not answer. Start it again; what was saved is still there.
        </p>
        <Button look="solid" onClick={() => location.reload()}>
          Try again
        </Button>
      </div>
    </>
  );
}
