"""Everything that leaves the studio: pieces, what is carried apart, tools, water, the kit; by what it travels in."""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from jolly_trellis.core.acts.stances import rides_flowered
from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.event.buying.shared_needs import PADS_EACH
from jolly_trellis.core.event.cutting.roll_problems import Larder
from jolly_trellis.core.event.job import Job, Made, quantity_of, recipe_of
from jolly_trellis.core.event.keys import line_key
from jolly_trellis.core.event.needs.bunches import StemBuy
from jolly_trellis.core.event.needs.needed import FOR_ALL, Needs
from jolly_trellis.core.event.needs.needs import HARDWARE_SUPPLY
from jolly_trellis.core.event.putting import acts_of_work, puts_of
from jolly_trellis.core.event.tasks.water_rounds import WaterRounds
from jolly_trellis.core.materials.hazards import HANDS
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import Phrase, cut_length, joined, length, mass, phrase, volume, worded
from jolly_trellis.core.rigging.loads import EXTRA, PROOF_MIN
from jolly_trellis.core.rigging.mounts import FEET

SPARE_STEMS = rule("Stems of each variety kept for mending on site, share", "ratio", 0.05, COMMON_PRACTICE)
SPARE_TIES = rule("Cable ties in the emergency kit", "count", 20, COMMON_PRACTICE)
NO_WORDS = phrase("")

PackGroup = Literal["pieces", "carried apart", "put in at the place", "tools and protection", "water", "emergency kit"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Pack:
    """One line to take along: how many, of what, and why; `home` is whether it comes back.

    `key` tells it from the others of the event, whatever its number.
    """

    key: str
    group: PackGroup
    name: str
    number: int
    why: Phrase = NO_WORDS
    home: bool = True


def packing(
    job: Job,
    made: Made,
    needs: Needs,
    stems: tuple[StemBuy, ...],
    larder: Larder,
    varieties: Mapping[str, Variety],
    water: WaterRounds,
) -> tuple[Pack, ...]:
    """Everything to take along, in groups, by the needs. Source: common practice, no source."""
    own = phrase("with its lines, bond and rig card")
    packs = [
        Pack(key=f"piece-{work.id}", group="pieces", name=work.piece.name, number=work.piece.quantity)
        for work in made.pieces
    ]
    packs += [
        Pack(key=f"piece-{hung.id}", group="pieces", name=hung.rig.name, number=1, why=own) for hung in made.rigs
    ]
    packs += [
        *_lifted_out(made),
        *_weights(made),
        *_with_hung(made),
        *_apart(needs, larder),
        *_put_in_there(made, varieties),
    ]
    packs += [*_tools(job, made, varieties, needs, larder), *_water(needs, larder, water), *_kit(needs, stems, larder)]
    return tuple(packs)


def _lifted_out(made: Made) -> Iterator[Pack]:
    """What pieces are lifted out of and go without: urns, and the vessels of pads, whose pads ride on buckets."""
    for work in made.pieces:
        going, piece = work.piece.transport, work.piece
        if going is None or not going.lifted_out or work.report is None or not rides_flowered(acts_of_work(work, {})):
            continue
        if piece.insert is not None:
            urn, why = piece.insert.outer.name, phrase("of {name}, which rides without it", name=piece.name)
            yield Pack(key=f"urn-{work.id}", group="carried apart", name=urn, number=piece.quantity, why=why)
        elif work.report.mechanic.lifts_off:
            why = phrase("of {name}, whose pad rides on a bucket", name=piece.name)
            key, name = f"vessel-{work.id}", piece.vessel.name
            yield Pack(key=key, group="carried apart", name=name, number=piece.quantity, why=why)
            bucket = phrase("under the pad of {name}", name=piece.name)
            yield Pack(
                key=f"bucket-{work.id}", group="carried apart", name="bucket", number=piece.quantity, why=bucket
            )


def _weights(made: Made) -> Iterator[Pack]:
    """The weights that pieces count on, which are laid or tied on where they are shown."""
    for work in made.pieces:
        weight = work.piece.counterweight
        if weight is not None:
            words = "{m}, tied to {name}" if weight.tied else "{m}, behind {name}"
            why = phrase(words, m=mass(weight.mass_kg), name=work.piece.name)
            number = work.piece.quantity
            yield Pack(key=f"weight-{work.id}", group="carried apart", name="weight", number=number, why=why)


def _with_hung(made: Made) -> Iterator[Pack]:
    """What hung work is mounted on, the weights on its feet, the core of a sleeve, and whatever else hangs on it."""

    def apart(key: str, name: str, why: Phrase, number: int = 1) -> Pack:
        return Pack(key=key, group="carried apart", name=name, number=number, why=why)

    for hung in made.rigs:
        mount, of = hung.rig.mount, hung.rig.name
        if mount is not None and mount.kind in ("frame", "stand"):
            said = [phrase("of {name}, {w} × {h}", name=of, w=length(mount.width_m), h=length(mount.height_m))]
            said += [] if mount.mass_kg is None else [phrase(", {m}", m=mass(mount.mass_kg))]
            said += [] if mount.tied_to is None else [phrase("; with guys to {to}", to=mount.tied_to)]
            yield apart(f"mount-{hung.id}", mount.kind, joined(said, ""))
            if mount.ballast_kg:
                why = phrase(
                    "{m} each, on the feet of the {kind} of {name}", m=mass(mount.ballast_kg), kind=mount.kind, name=of
                )
                yield apart(f"feet-{hung.id}", "weight for a foot", why, FEET)
        if hung.rig.armature.core_kg:
            why = phrase("{m}, in the foot of {name}", m=mass(hung.rig.armature.core_kg), name=of)
            yield apart(f"core-{hung.id}", "core", why)
        if hung.rig.extra_kg:
            yield apart(f"extra-{hung.id}", EXTRA, phrase("{m}, on {name}", m=mass(hung.rig.extra_kg), name=of))


def _apart(needs: Needs, larder: Larder) -> Iterator[Pack]:
    """Stands, the cartons that pieces ride in, and the marked hardware of all lines."""
    stands: dict[str, int] = {}
    names: dict[str, str] = {}
    for each in needs.things:
        if each.kind == "stand":
            stands[each.thing] = stands.get(each.thing, 0) + each.quantity
            names.setdefault(each.thing, each.name)
    for thing, number in stands.items():
        yield Pack(key=line_key("stand", thing), group="carried apart", name=names[thing], number=number)
    yield from _from_needs(needs, larder, "box", "carried apart", phrase("one for each piece that rides boxed"))
    for supply in HARDWARE_SUPPLY.values():
        yield from _from_needs(needs, larder, supply, "carried apart", phrase("in the lines of what hangs"))


def _put_in_there(made: Made, varieties: Mapping[str, Variety]) -> Iterator[Pack]:
    """Stems that go in at the place, in their buckets."""
    counts: dict[str, int] = {}
    for work in made.works:
        for put in puts_of(work, varieties):
            if put.there:
                key = put.line.variety
                counts[key] = counts.get(key, 0) + put.line.count * quantity_of(work)
    for key, number in counts.items():
        name = varieties[key].name if key in varieties else key
        why = phrase("in a bucket of water")
        yield Pack(key=f"stems-{key}", group="put in at the place", name=name, number=number, why=why, home=False)


def _from_needs(needs: Needs, larder: Larder, supply: str, group: PackGroup, why: Phrase) -> Iterator[Pack]:
    number = math.ceil(sum(each.amount for each in needs.supplies if each.supply == supply))
    if number:
        name = larder.supplies[supply].name if supply in larder.supplies else supply
        yield Pack(key=supply, group=group, name=name, number=number, why=why)


def _tools(job: Job, made: Made, varieties: Mapping[str, Variety], needs: Needs, larder: Larder) -> Iterator[Pack]:
    hands = max(1, len(job.crew))
    used = [varieties[line.variety] for work in made.works for line in recipe_of(work) if line.variety in varieties]
    names = sorted({each.name for each in used if HANDS & set(each.hazards)})
    wired = any(work.report is not None and work.report.mechanic.flat for work in made.pieces) or bool(made.rigs)

    def tool(name: str, number: int = 1, why: Phrase = NO_WORDS) -> Pack:
        return Pack(key=name, group="tools and protection", name=name, number=number, why=why)

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
    why = phrase("{n} under each piece", n=PADS_EACH.quantity)
    yield from _from_needs(needs, larder, "felt-pad", "tools and protection", why)
    yield tool("cloths, broom, bags for compost and for waste")
    yield tool("first aid box")


def _water(needs: Needs, larder: Larder, water: WaterRounds) -> Iterator[Pack]:
    if water.total_l <= 0:
        return
    most = max((each.litres for each in water.rounds), default=0.0)
    why = phrase("{v} in all, the filling and the rounds", v=volume(water.total_l))
    yield from _from_needs(needs, larder, "water-can", "water", why)
    yield from _from_needs(needs, larder, "jug", "water", phrase("the largest round is {v}", v=volume(most)))
    yield Pack(key="funnel", group="water", name="funnel and long spout", number=1)


def _kit(needs: Needs, stems: tuple[StemBuy, ...], larder: Larder) -> Iterator[Pack]:
    """Spares of what fails on site, from what the plan holds."""

    def spare(name: str, number: int = 1, why: Phrase = NO_WORDS, *, key: str = "", home: bool = True) -> Pack:
        return Pack(key=f"spare {key or name}", group="emergency kit", name=name, number=number, why=why, home=home)

    for need in needs.sheets:
        if need.piece_id == FOR_ALL:
            name = larder.nettings[need.netting].name if need.netting in larder.nettings else need.netting
            why = phrase("{l}, to replace or to patch", l=cut_length(need.sheet.length_m))
            yield spare(worded("spare sheet of netting, {name}", name=name), need.quantity, why, key=need.netting)
    lines: dict[str, float] = {}
    for each in needs.lengths:
        supply = larder.supplies.get(each.supply)
        if supply is not None and supply.supplier == "rigging":
            lines[supply.key] = max(lines.get(supply.key, 0.0), each.length_m)
    for key, long in lines.items():
        why = phrase("as long as the longest, {l}", l=cut_length(long))
        yield spare(worded("spare {thing}", thing=larder.supplies[key].name), why=why, key=key)
    yield spare("anchor tape and putty", why=phrase("for a dry rim only"))
    yield spare("cable tie, and soft wire", round(SPARE_TIES.value))
    mending = [(each.name, math.ceil(each.with_waste * SPARE_STEMS.value)) for each in stems]
    if mending:
        named = ", ".join(f"{number} {name}" for name, number in mending)
        number = sum(number for _, number in mending)
        yield spare("stem for mending, in water", number, phrase("{named}", named=named), home=False)
