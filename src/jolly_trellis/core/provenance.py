"""Where every figure comes from, so that the screen can show it beside the verdict it decided."""

from dataclasses import dataclass
from typing import Annotated, Literal, get_args

from jolly_trellis.core.ranges import Text

ProvenanceKind = Literal["published", "common practice", "from memory", "estimate", "measured", "computed"]
PROVENANCE_KINDS: tuple[ProvenanceKind, ...] = get_args(ProvenanceKind)


@dataclass(frozen=True, slots=True, kw_only=True)
class Provenance:
    """One of the six kinds, and the source in words where there is one."""

    kind: ProvenanceKind
    source: Annotated[str, Text(400)] = ""


ESTIMATE = Provenance(kind="estimate")
FROM_MEMORY = Provenance(kind="from memory")
COMMON_PRACTICE = Provenance(kind="common practice", source="no source")
MEASURED = Provenance(kind="measured", source="entered by you")
COMPUTED = Provenance(kind="computed")
