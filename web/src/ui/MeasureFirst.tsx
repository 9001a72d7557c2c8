import { X } from "lucide-react";
import { useState } from "react";
import { useLocation } from "react-router";
import { Button } from "./Button";

/** What to measure first of something that was just begun; it goes when it is closed. */
export function MeasureFirst() {
  const { state } = useLocation();
  const [closed, setClosed] = useState(false);
  const measure: unknown = state?.measure;
  if (closed || !Array.isArray(measure) || measure.length === 0) return null;
  return (
    <div
      role="status"
      className="no-print flex flex-none items-center gap-3 border-b border-line bg-sheet px-4 py-1 text-md"
    >
      <p className="m-0 flex-1">
        <strong>Measure first:</strong> {measure.join("; ")}. The sizes here are usual ones.
      </p>
      <Button look="quiet" onClick={() => setClosed(true)}>
        <X size={16} aria-hidden="true" />
        <span className="sr-only">Close what to measure first</span>
      </Button>
    </div>
  );
}
