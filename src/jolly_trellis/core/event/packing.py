"""What goes along beside what is bought: the pieces, tools and protective wear, water and jugs, the emergency kit."""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.water import JUG_L
from jolly_trellis.core.event.buying import StemBuy
from jolly_trellis.core.event.job import Job, Made, recipe_of
from jolly_trellis.core.event.needs import Needs
from jolly_trellis.core.event.roll_problems import Larder
from jolly_trellis.core.event.water_rounds import WaterRounds
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import Phrase, cut_length, mass, phrase, volume
from jolly_trellis.core.rigging.loads import PROOF_MIN

CAN_L = rule("Water carried in one can", "volume", 10.0, COMMON_PRACTICE)
PADS_EACH = rule("Felt pads under one piece", "count", 4, COMMON_PRACTICE)
SPARE_STEMS = rule("Stems of each variety kept for mending on site, share", "ratio", 0.05, COMMON_PRACTICE)
SPARE_PATCH = rule("A spare sheet of netting is no longer than", "length", 1.0, COMMON_PRACTICE)
SPARE_TIES = rule("Cable ties in the emergency kit", "count", 20, COMMON_PRACTICE)
NO_WORDS = phrase("")

PackGroup = Literal["pieces", "tools and protection", "water", "emergency kit"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Pack:
    """One line to take along: how many, of what, and why."""

    group: PackGroup
    name: str
    number: int
    why: Phrase = NO_WORDS


def packing(
    job: Job,
    made: Made,
    needs: Needs,
    stems: tuple[StemBuy, ...],
    larder: Larder,
    varieties: Mapping[str, Variety],
    water: WaterRounds,
) -> tuple[Pack, ...]:
    """Everything to take along, in groups. Source: common practice, no source; litres as the water rounds."""
    packs = [Pack(group="pieces", name=work.piece.name, number=work.piece.quantity) for work in made.pieces]
    own = phrase("with its lines, bond and rig card")
    packs += [Pack(group="pieces", name=rig.rig.name, number=1, why=own) for rig in made.rigs]
    packs += [*_tools(job, made, varieties), *_water(job, water), *_kit(needs, stems, larder)]
    return tuple(packs)


def _tools(job: Job, made: Made, varieties: Mapping[str, Variety]) -> Iterator[Pack]:
    hands = max(1, len(job.crew))
    used = [varieties[line.variety] for work in made.works for line in recipe_of(work) if line.variety in varieties]
    names = sorted({each.name for each in used if each.toxic or each.thorny})
    wired = any(work.report is not None and work.report.mechanic.flat for work in made.pieces) or bool(made.rigs)

    def tool(name: str, number: int = 1, why: Phrase = NO_WORDS) -> Pack:
        return Pack(group="tools and protection", name=name, number=number, why=why)

    yield tool("snips", hands)
    if names:
        yield tool("pair of gloves", hands, phrase("thorns or sap: {names}", names=", ".join(names)))
    if wired:
        pairs = max(1, hands // 2)
        yield tool("wire cutters", pairs)
        yield tool("pair of cut-proof gloves and of glasses", pairs, phrase("cut wire springs"))
    hung = [each for each in made.rigs if not each.rig.lies]
    if hung:
        proof = max((each.report.proof_kg for each in hung if each.report is not None), default=0.0)
        yield tool("ladder, footed by a second person", why=phrase("hung and mounted work"))
        yield tool("spirit level, tape measure, pencil")
        if proof:
            yield tool(
                "bags of water or sand to prove with",
                why=phrase("up to {m} for {t}", m=mass(proof), t=PROOF_MIN.quantity),
            )
        yield tool("hanging load cell", why=phrase("tensions and proof loads"))
    pads = math.ceil(PADS_EACH.value * sum(work.piece.quantity for work in made.pieces if not work.piece.carried))
    if pads:
        yield tool("felt pad", pads, phrase("{n} under each piece", n=PADS_EACH.quantity))
    yield tool("cloths, broom, bags for compost and for waste")
    yield tool("first aid box")


def _water(job: Job, water: WaterRounds) -> Iterator[Pack]:
    if water.total_l <= 0:
        return
    most = max((each.litres for each in water.rounds), default=0.0)
    cans = math.ceil(water.total_l / CAN_L.value)
    jugs = max(1, min(len(job.crew) or 1, math.ceil(most / JUG_L.value)))
    why = phrase("{v} in all, the filling and the rounds", v=volume(water.total_l))
    yield Pack(group="water", name=f"can of {CAN_L.value:g} L", number=cans, why=why)
    yield Pack(
        group="water",
        name=f"jug of {JUG_L.value:g} L",
        number=jugs,
        why=phrase("the largest round is {v}", v=volume(most)),
    )
    yield Pack(group="water", name="funnel and long spout", number=1)


def _kit(needs: Needs, stems: tuple[StemBuy, ...], larder: Larder) -> Iterator[Pack]:
    """Spares of what fails on site."""

    def spare(name: str, number: int = 1, why: Phrase = NO_WORDS) -> Pack:
        return Pack(group="emergency kit", name=name, number=number, why=why)

    sheets: dict[str, float] = {}
    for need in needs.sheets:
        sheets[need.netting] = max(sheets.get(need.netting, 0.0), need.sheet.length_m)
    for key, long in sheets.items():
        name = larder.nettings[key].name if key in larder.nettings else key
        patch = min(long, SPARE_PATCH.value)
        yield spare(f"spare sheet of netting, {name}", why=phrase("{l}, to replace or to patch", l=cut_length(patch)))
    lines: dict[str, float] = {}
    for each in needs.lengths:
        supply = larder.supplies.get(each.supply)
        if supply is not None and supply.supplier == "rigging":
            lines[supply.name] = max(lines.get(supply.name, 0.0), each.length_m)
    for name, long in lines.items():
        yield spare(f"spare {name}", why=phrase("as long as the longest, {l}", l=cut_length(long)))
    yield spare("anchor tape and putty", why=phrase("for a dry rim only"))
    yield spare("cable tie, and soft wire", round(SPARE_TIES.value))
    mending = sum(math.ceil(each.with_waste * SPARE_STEMS.value) for each in stems)
    if mending:
        yield spare("stem for mending, in water", mending, phrase("a few of each variety"))
