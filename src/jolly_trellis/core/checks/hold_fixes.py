"""What could mend Hold: more layers, smaller cells, closer spacing, tape, putty, fewer stems, another mechanic."""

from dataclasses import replace

import numpy as np

from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.mechanics.about import firm_ones
from jolly_trellis.core.mechanics.fit import MAX_LAYERS
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.mechanics.tape import MAX_TAPE_STRIPS
from jolly_trellis.core.quantities import count, length, phrase
from jolly_trellis.core.stems.shades import with_count
from jolly_trellis.core.units import round_up


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """Changes that could mend Hold: another layer, smaller cells, a wider gap, tape, putty, fewer or lower stems."""
    piece, mechanic = build.piece, build.piece.mechanic
    about = ABOUT[mechanic.kind]
    tried: list[Candidate] = []
    finer = _finer_nettings(build, float(build.placement.stems.diameter_m.max()))
    if "layers" in about.reads and mechanic.layers < MAX_LAYERS:
        more = replace(mechanic, layers=mechanic.layers + 1, layer_gap_m=None)
        say = phrase("Fold to {layers} layers instead of {before}.", layers=more.layers, before=mechanic.layers)
        tried.append(Candidate(key="one-more-layer", say=say, piece=replace(piece, mechanic=more)))
    for other in finer:
        say = phrase("Use {a} netting, {finish}.", a=length(other.aperture_m), finish=other.finish)
        swapped = replace(mechanic, netting=other.key)
        tried.append(Candidate(key=f"netting-{other.key}", say=say, piece=replace(piece, mechanic=swapped)))
    if "layer_gap_m" in about.reads:
        tried += _wider_gap(build)
    if "cell_m" in about.reads:
        closer = round(0.75 * build.mechanic.seating.pitch_m, 3)
        say = phrase("Space them {s} apart.", s=length(closer))
        tried.append(Candidate(key="closer", say=say, piece=replace(piece, mechanic=replace(mechanic, cell_m=closer))))
    at_seat = verdict.governing is not None and verdict.governing.check == "seat"
    if at_seat and about.tapes and build.mechanic.tape_strips < MAX_TAPE_STRIPS:
        strips = build.mechanic.tape_strips + 1
        say = phrase("Tape the rim with {n} {n|strip|strips}, on a clean dry rim.", n=strips)
        taped = replace(piece, mechanic=replace(mechanic, tape_strips=strips))
        tried.append(Candidate(key="more-tape", say=say, piece=taped))
    if at_seat and build.mechanic.putty_kg == 0 and (about.frog or about.netting):
        stuck = replace(piece, mechanic=replace(mechanic, putty=True))
        say = phrase("Stick it down with putty, on a dry clean surface.")
        tried.append(Candidate(key="putty", say=say, piece=stuck))
    if at_reach(verdict):
        tried += _within_reach(build)
    over = int(build.placement.stems.stems_in_row[build.placement.over_capacity].sum())
    if over:
        tried.append(_fewer_stems(build, over))
    if verdict.state == "fails" and "layers" in about.reads and mechanic.layers < MAX_LAYERS:
        tried += [_finer_and_folded(build, other) for other in finer]
    if verdict.state == "fails":
        tried += _other_kinds(build)
    return tried


def at_reach(verdict: Verdict) -> bool:
    """Whether some stem is not sold long enough."""
    return any(each.check == "reach" for each in verdict.findings)


def _within_reach(build: Build) -> list[Candidate]:
    """A spike cup under what is too short, or lower and narrower, so that what is sold reaches."""
    piece, placement = build.piece, build.placement
    above = piece.envelope.height_m - build.rim_z_m
    tried = []
    for share in (0.9, 0.8, 0.7, 0.6, 0.5):
        size = replace(
            piece.envelope,
            height_m=round_up(build.rim_z_m + share * above, 0.005),
            width_m=round_up(share * piece.envelope.width_m, 0.005),
            depth_m=round_up(share * piece.envelope.depth_m, 0.005),
        )
        say = phrase("Bring the flowers in to {h} high and {w} wide.", h=length(size.height_m), w=length(size.width_m))
        tried.append(Candidate(key=f"within-{round(100 * share)}", say=say, piece=replace(piece, envelope=size)))
    short = {
        placement.stems.variety_of(row).key
        for row in np.flatnonzero(placement.wanted_m - placement.rod_m > placement.stems.longest_m + 1e-9).tolist()
    }
    lines = tuple(
        replace(line, water="cup") if line.variety in short and line.water == "vessel" else line
        for line in piece.recipe
    )
    if lines != piece.recipe:
        names = ", ".join(build.conditions.varieties[key].name for key in sorted(short))
        say = phrase("Stand the {names} in spike cups on rods.", names=names)
        tried.append(Candidate(key="spikecups", say=say, piece=replace(piece, recipe=lines)))
        if "layers" in ABOUT[piece.mechanic.kind].reads and piece.mechanic.layers < MAX_LAYERS:
            more = replace(piece.mechanic, layers=piece.mechanic.layers + 1, layer_gap_m=None)
            say = phrase(
                "Stand the {names} in spike cups on rods, and fold to {layers} layers.",
                names=names,
                layers=more.layers,
            )
            tried.append(Candidate(key="spikecupsfolded", say=say, piece=replace(piece, recipe=lines, mechanic=more)))
    return tried


def _wider_gap(build: Build) -> list[Candidate]:
    piece, mechanic = build.piece, build.piece.mechanic
    spaces = len(build.mechanic.levels) - 1
    if spaces < 1:
        return []
    wider = round(build.mechanic.layer_gap_m + 0.01, 3)
    if wider > piece.vessel.inside_depth_m / spaces - 0.01:
        return []
    gapped = replace(piece, mechanic=replace(mechanic, layer_gap_m=wider))
    return [Candidate(key="wider-gap", say=phrase("Set the layers {gap} apart.", gap=length(wider)), piece=gapped)]


def _other_kinds(build: Build) -> list[Candidate]:
    """Netting mechanics that hold more firmly, for where the chosen one cannot."""
    piece, mechanic = build.piece, build.piece.mechanic
    netting = mechanic.netting or next(iter(build.conditions.nettings), None)
    if netting is None:
        return []
    tried = []
    for about in firm_ones("standing"):
        if about.kind != mechanic.kind:
            other = replace(mechanic, kind=about.kind, netting=netting, layer_gap_m=None, tape_strips=None)
            say = phrase("Use a {about} instead.", about=about.name.lower())
            tried.append(Candidate(key=f"kind-{about.kind}", say=say, piece=replace(piece, mechanic=other)))
    return tried


def _finer_nettings(build: Build, widest_m: float) -> list[nets.Netting]:
    """Nettings in the stores with smaller cells that the thickest stem still passes, widest first."""
    if build.netting is None:
        return []
    now = nets.aperture_m(build.netting)
    finer = [
        each
        for each in build.conditions.nettings.values()
        if nets.aperture_m(each) < now - 1e-6
        and nets.passes(nets.aperture_m(each), widest_m)
        and each.finish == build.netting.finish
    ]
    return sorted(finer, key=nets.aperture_m, reverse=True)[:2]


def _finer_and_folded(build: Build, netting: nets.Netting) -> Candidate:
    """Smaller cells and one more layer together, for where neither alone is enough."""
    mechanic = build.piece.mechanic
    both = replace(mechanic, netting=netting.key, layers=mechanic.layers + 1, layer_gap_m=None)
    say = phrase(
        "Use {a} netting, {finish}, folded to {layers} layers.",
        a=length(netting.aperture_m),
        finish=netting.finish,
        layers=both.layers,
    )
    key = f"finer-folded-{netting.key.replace('-', '')}"
    return Candidate(key=key, say=say, piece=replace(build.piece, mechanic=both))


def _fewer_stems(build: Build, over: int) -> Candidate:
    """Take the stems that find no seat out of the recipe, from the lines they belong to."""
    piece, placement = build.piece, build.placement
    taken: dict[str, int] = {}
    for row in np.flatnonzero(placement.over_capacity).tolist():
        key = placement.stems.variety_of(row).key
        taken[key] = taken.get(key, 0) + int(placement.stems.stems_in_row[row])
    lines = []
    for line in piece.recipe:
        less = min(taken.get(line.variety, 0), line.count)
        taken[line.variety] = taken.get(line.variety, 0) - less
        if line.count > less:
            lines.append(with_count(line, line.count - less))
    say = phrase("Leave out {n} stems that find no seat.", n=count(over))
    return Candidate(key="fewer-stems", say=say, piece=replace(piece, recipe=tuple(lines)))
