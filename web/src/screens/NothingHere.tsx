import { Link } from "react-router";
import { TopBar } from "../ui/TopBar";
import { useTitle } from "../ui/useTitle";

/** An address that leads nowhere, and the way home. */
export function NothingHere({ what = "Nothing is kept under this address." }: { what?: string }) {
  useTitle("Nothing here");
  return (
    <>
      <TopBar />
      <main className="mx-auto max-w-xl p-6">
        <h1 className="text-3xl">Nothing here</h1>
        <p className="mt-2">{what}</p>
        <ul className="m-0 list-none p-0">
          <li>
            <Link className="link-action" to="/?all">
              All events
            </Link>
          </li>
          <li>
            <Link className="link-action" to="/stores">
              The stores
            </Link>
          </li>
        </ul>
      </main>
    </>
  );
}
