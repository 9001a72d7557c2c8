import { Moon, Printer, Redo2, Sun, Undo2 } from "lucide-react";
import { type ReactNode, useEffect } from "react";
import { Link } from "react-router";
import { Button } from "./Button";
import { HelpSheet } from "./HelpSheet";
import { useSettings } from "./settings";

type Props = {
  children?: ReactNode;
  undo?: string | null;
  redo?: string | null;
  onUndo?: () => void;
  onRedo?: () => void;
};

/** Whether something is typed there that is not taken over yet: undo is of the letters then, not of the plan. */
function isTyped(target: EventTarget | null): boolean {
  if (target instanceof HTMLTextAreaElement) return true;
  if (!(target instanceof HTMLInputElement) || target.type === "checkbox") return false;
  return target.dataset.typing !== "false";
}

/** The bar over every screen: where you are, units at one touch, undo and redo, evening light, print. */
export function TopBar({ children, undo, redo, onUndo, onRedo }: Props) {
  const { system, theme, switchUnits, switchTheme } = useSettings();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || isTyped(event.target)) return;
      const key = event.key.toLowerCase();
      if (key === "z" && !event.shiftKey && undo) {
        event.preventDefault();
        onUndo?.();
      }
      if (((key === "z" && event.shiftKey) || key === "y") && redo) {
        event.preventDefault();
        onRedo?.();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [undo, redo, onUndo, onRedo]);
  return (
    <header className="no-print flex min-h-14 flex-none flex-wrap items-center gap-x-2 border-b border-line px-3 max-md:gap-x-0.5 max-md:px-2">
      <Link
        to="/"
        className="serif flex min-h-11 min-w-11 flex-none items-center gap-2 px-1 text-lg text-leaf no-underline"
      >
        <svg width="22" height="22" viewBox="0 0 24 24" aria-hidden="true">
          <path
            d="M2 8 8 2M2 16 16 2M4 22 22 4M12 22 22 12M2 12l10 10M2 4l18 18M8 2l14 14"
            fill="none"
            stroke="currentColor"
            strokeWidth="2"
          />
        </svg>
        <span className="max-md:sr-only">Jolly Trellis</span>
      </Link>
      <div className="flex min-w-0 flex-1 items-center gap-x-2 max-lg:order-last max-lg:flex-none max-lg:basis-full max-lg:flex-wrap max-lg:has-[>*]:border-t max-lg:has-[>*]:border-line/60">
        {children}
      </div>
      <span className="flex-1 lg:hidden" />
      {onUndo && (
        <>
          <Button
            look="quiet"
            disabled={!undo}
            onClick={onUndo}
            title={undo ? `Undo: ${undo}` : "Nothing to undo"}
          >
            <Undo2 size={18} aria-hidden="true" />
            <span className="sr-only">Undo</span>
          </Button>
          <Button
            look="quiet"
            disabled={!redo}
            onClick={onRedo}
            title={redo ? `Redo: ${redo}` : "Nothing to redo"}
          >
            <Redo2 size={18} aria-hidden="true" />
            <span className="sr-only">Redo</span>
          </Button>
        </>
      )}
      <Button look="quiet" className="max-md:hidden" onClick={() => window.print()} title="Print this page">
        <Printer size={18} aria-hidden="true" />
        <span className="sr-only">Print</span>
      </Button>
      <HelpSheet />
      <Button look="quiet" onClick={switchTheme} title={theme === "day" ? "Evening light" : "Daylight"}>
        {theme === "day" ? <Moon size={18} aria-hidden="true" /> : <Sun size={18} aria-hidden="true" />}
        <span className="sr-only">{theme === "day" ? "Evening light" : "Daylight"}</span>
      </Button>
      <Button
        onClick={switchUnits}
        aria-label={`Units: ${system === "metric" ? "centimetres" : "inches"}. Switch`}
      >
        <span className={system === "metric" ? "font-bold" : "text-soft"}>cm</span>
        <span aria-hidden="true" className="text-line">
          /
        </span>
        <span className={system === "inch" ? "font-bold" : "text-soft"}>in</span>
      </Button>
    </header>
  );
}
