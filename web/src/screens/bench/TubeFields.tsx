import type { StemTube } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";

const CAP = [
  ["no", "does not seal"],
  ["yes", "seals"],
] as const;
const SIZES = [
  ["Tube, inside", "inner_diameter_m"],
  ["Tube, long", "length_m"],
  ["Stem in by", "stem_in_m"],
] as const;

/** `path` is the dotted path of the tube. */
type Props = { tube: StemTube; path: string; onTube: (tube: StemTube) => void };

/** A stem tube: its size, how the stem sits in it, which way it points, how full it is, whether its cap seals. */
export function TubeFields({ tube, path, onTube }: Props) {
  const put = (next: Partial<StemTube>) => onTube({ ...tube, ...next });
  return (
    <>
      {SIZES.map(([label, key]) => (
        <QuantityField
          key={key}
          label={label}
          kind="length"
          value={tube[key]}
          onCommit={(value) => value !== null && put({ [key]: value })}
        />
      ))}
      <QuantityField
        label="Turned from upright"
        kind="angle"
        value={tube.tilt_rad}
        onCommit={(value) => value !== null && put({ tilt_rad: Math.min(Math.PI, Math.max(0, value)) })}
      />
      <QuantityField
        label="Filled"
        kind="percent"
        value={tube.fill_share}
        onCommit={(value) => value !== null && put({ fill_share: value })}
      />
      <Choice
        label="Its cap"
        path={`${path}.cap_seals`}
        value={tube.cap_seals ? "yes" : "no"}
        options={CAP}
        onCommit={(seals) => put({ cap_seals: seals === "yes" })}
      />
    </>
  );
}
