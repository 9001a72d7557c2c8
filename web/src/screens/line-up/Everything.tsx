import { useQuery, useQueryClient } from "@tanstack/react-query";
import { AlertDialog } from "radix-ui";
import { useRef, useState } from "react";
import { api } from "../../api/client";
import type { PutBack } from "../../api/types";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { useRefusal } from "../../ui/useRefusal";
import { render } from "../../units/text";

type Wanted = { readonly name: string; readonly put: () => Promise<PutBack> };

/** Everything the studio has, saved as one file and put back from one; and the copies of the last days. */
export function Everything() {
  const client = useQueryClient();
  const { system } = useSettings();
  const { problem, attempt } = useRefusal();
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const asked = useQuery({ queryKey: ["copies"], queryFn: api.copies });
  const copies = asked.data?.copies ?? [];
  const putBack = async ({ name, put }: Wanted) => {
    setWanted(null);
    setSaid(null);
    setBusy(true);
    const done = await attempt(put);
    setBusy(false);
    if (done) setSaid(`${name} is put back. What it replaced is kept as a copy below.`);
    await client.invalidateQueries();
  };
  return (
    <section className="rounded border border-line bg-sheet p-4" aria-label="Everything the studio has">
      <h2 className="m-0 text-2xl">Everything the studio has</h2>
      <p className="mt-1 mb-3 text-soft">
        Events, stores and surveys in one file, to keep elsewhere or to move to another computer. A copy is
        made each day the program runs; the last seven are kept.
      </p>
      <div className="flex flex-wrap items-center gap-2">
        <a className="link-action px-2" href="/api/data/backup.sqlite">
          Save everything as a file
        </a>
        <Button disabled={busy} onClick={() => file.current?.click()}>
          Put a saved file back
        </Button>
        <input
          ref={file}
          type="file"
          accept=".sqlite"
          className="sr-only"
          aria-label="A file of everything"
          tabIndex={-1}
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            event.target.value = "";
            if (chosen) setWanted({ name: chosen.name, put: () => api.restoreFile(chosen) });
          }}
        />
      </div>
      {(busy || said) && (
        <p role="status" className="mt-2 mb-0">
          {busy ? "Putting it back…" : said}
        </p>
      )}
      {problem && (
        <p role="alert" className="mt-2 mb-0 text-berry">
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
      {copies.length > 0 && (
        <>
          <h3 className="mt-4 mb-0 text-lead">Copies here</h3>
          <ul className="m-0 list-none divide-y divide-line p-0">
            {copies.map((each) => (
              <li key={each.name} className="flex items-center gap-3">
                <span className="flex-1">
                  {new Date(each.made_at).toLocaleString(undefined, {
                    dateStyle: "medium",
                    timeStyle: "short",
                  })}
                  {each.replaced ? ", before another was put back" : ""}
                </span>
                <span className="text-soft">{(each.size_bytes / 1e6).toFixed(1)} MB</span>
                <Button
                  look="quiet"
                  disabled={busy}
                  aria-label={`Put back ${each.name}`}
                  onClick={() => setWanted({ name: "The copy", put: () => api.restoreCopy(each.name) })}
                >
                  Put back
                </Button>
              </li>
            ))}
          </ul>
        </>
      )}
      <AlertDialog.Root open={wanted !== null} onOpenChange={(open) => !open && setWanted(null)}>
        <AlertDialog.Portal>
          <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
          <AlertDialog.Content className="fixed top-1/3 left-1/2 z-50 w-[min(92vw,460px)] -translate-x-1/2 rounded border border-line bg-paper p-5 shadow-lg">
            <AlertDialog.Title className="m-0 text-xl">Put it back in place of everything?</AlertDialog.Title>
            <AlertDialog.Description className="mt-2 mb-4">
              All events, stores and surveys become those of the file. What is here now is kept as a copy.
            </AlertDialog.Description>
            <div className="flex justify-end gap-2">
              <AlertDialog.Cancel asChild>
                <Button>Leave it as it is</Button>
              </AlertDialog.Cancel>
              <AlertDialog.Action asChild>
                <Button look="solid" onClick={() => wanted && void putBack(wanted)}>
                  Put it back
                </Button>
              </AlertDialog.Action>
            </div>
          </AlertDialog.Content>
        </AlertDialog.Portal>
      </AlertDialog.Root>
    </section>
  );
}
