import { X } from "lucide-react";
import { EditButton } from "../../desk/Editing";
import { isTied } from "../../drawing/rig";
import { Button } from "../../ui/Button";
import { QuantityField } from "../../ui/QuantityField";
import { worded } from "../../units/worded";
import { moved } from "./edits";
import { AXES } from "./kinds";
import type { RigTabProps } from "./types";

/** The armature's path: its places typed as points, or drawn on the sheet; then each is held. */
export function PathTab({ rig, problem, chosen, tool, onTool, onChoose, onCommit }: RigTabProps) {
  const bare = rig.attachments.filter(
    (_, index) => !rig.lines.some((line) => line.attachment === index || line.tied_to === index),
  ).length;
  return (
    <div className="p-2">
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <Button
          look={tool === "path" ? "solid" : "plain"}
          aria-pressed={tool === "path"}
          onClick={() => onTool(tool === "path" ? "hand" : "path")}
        >
          {tool === "path" ? "Finish the path" : "Draw the path"}
        </Button>
        <EditButton what={{ kind: "add place" }}>Add a place</EditButton>
        <EditButton disabled={bare === 0} what={{ kind: "hold places" }}>
          {isTied(rig) ? "Tie every bare place" : "Hang every bare place"} ({bare})
        </EditButton>
        <span className="text-sm text-soft">
          {tool === "path"
            ? "Press on the front view for one place after the other; Enter finishes, Esc leaves all as it was."
            : "Places are where the armature is held, in their order along it."}
        </span>
      </div>
      <ul className="m-0 grid list-none grid-cols-2 gap-x-5 gap-y-1 p-0 max-lg:grid-cols-1">
        {rig.attachments.map((place, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: a place is known by its order
            key={index}
            onFocusCapture={() => onChoose(`attachment-${index}`)}
            className={`grid grid-cols-[52px_1fr_1fr_1fr_1fr_40px] items-end gap-1 ${chosen === `attachment-${index}` ? "bg-sheet" : ""}`}
          >
            <span className="flex min-h-11 items-center text-sm">place {index + 1}</span>
            {AXES.map(([axis, words]) => (
              <QuantityField
                key={axis}
                label={words}
                hideLabel={index > 1}
                kind="length"
                value={place[axis]}
                path={`attachments.${index}.${axis}`}
                problem={problem}
                onCommit={(value) =>
                  value !== null &&
                  onCommit(
                    moved(rig, "attachment", index, axis, value),
                    worded("Move place {n}", { n: index + 1 }),
                  )
                }
              />
            ))}
            <QuantityField
              label="Along"
              hideLabel={index > 1}
              kind="length"
              optional
              placeholder="shared out"
              value={place.along_m}
              path={`attachments.${index}.along_m`}
              problem={problem}
              onCommit={(along_m) =>
                onCommit(
                  {
                    ...rig,
                    attachments: rig.attachments.map((each, at) =>
                      at === index ? { ...each, along_m } : each,
                    ),
                  },
                  worded("How far along place {n} is", { n: index + 1 }),
                )
              }
            />
            <EditButton
              look="quiet"
              title={worded("Remove place {n}", { n: index + 1 })}
              what={{ kind: "remove place", place: index }}
            >
              <X size={16} aria-hidden="true" />
              <span className="sr-only">Remove place {index + 1}</span>
            </EditButton>
          </li>
        ))}
      </ul>
    </div>
  );
}
