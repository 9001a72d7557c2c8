import { CircleHelp, X } from "lucide-react";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { useLocation } from "react-router";
import { Button } from "./Button";
import { helpOf, type Row } from "./help";
import { useTrade } from "./useTrade";

/** The sheet of keys, marks and words of a screen: `?`, or the button in the bar. */
export function HelpSheet() {
  const [open, setOpen] = useState(false);
  const { pathname } = useLocation();
  const words = useTrade()?.glossary ?? [];
  const help = helpOf(pathname);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { target } = event;
      const typing =
        target instanceof HTMLInputElement
          ? target.type !== "checkbox"
          : target instanceof HTMLTextAreaElement;
      if (event.key === "?" && !typing && !event.ctrlKey && !event.metaKey) setOpen((now) => !now);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button look="quiet" title="Keys, marks and words (?)">
          <CircleHelp size={18} aria-hidden="true" />
          <span className="sr-only">Keys, marks and words</span>
        </Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-0 right-0 z-50 flex h-full w-130 max-w-full flex-col border-l border-line bg-paper shadow-lg"
        >
          <div className="flex flex-none items-center justify-between border-b border-line px-4">
            <Dialog.Title className="serif m-0 text-xl">{help.title}: keys, marks, words</Dialog.Title>
            <Dialog.Close asChild>
              <Button look="quiet">
                <X size={18} aria-hidden="true" />
                <span className="sr-only">Close</span>
              </Button>
            </Dialog.Close>
          </div>
          {/* biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, by keyboard too */}
          <div tabIndex={0} className="min-h-0 flex-1 overflow-y-auto px-4 py-3">
            <Rows title="Keys" rows={help.keys} />
            {help.marks.length > 0 && <Rows title="Marks" rows={help.marks} />}
            <Rows title="Words" rows={words.map(({ word, meaning }) => [word, meaning] as const)} />
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Rows({ title, rows }: { title: string; rows: readonly Row[] }) {
  return (
    <section className="mb-4">
      <h3 className="m-0 text-lg">{title}</h3>
      <dl className="m-0 grid grid-cols-[150px_minmax(0,1fr)] gap-x-3 gap-y-1.5 max-md:grid-cols-[110px_minmax(0,1fr)]">
        {rows.map(([what, means]) => (
          <div key={what} className="contents">
            <dt className="font-semibold">{what}</dt>
            <dd className="m-0">{means}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
