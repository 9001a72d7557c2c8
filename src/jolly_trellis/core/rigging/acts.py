"""The acts of a hung, lying or mounted part: made and flowered, loaded, raised, flowered there, taken down."""

from collections.abc import Mapping

from jolly_trellis.core.acts.acts import ActKind, Acts, Held, Lot, Place, Spot
from jolly_trellis.core.acts.passing import Passing, lines_of
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.rigging.rig import Rig


def acts_of_rig(rig: Rig, varieties: Mapping[str, Variety]) -> Acts:
    """Every act of a rig, in order. Source: the choices of the plan; else as the trade usually does it."""
    work = Passing((lines_of(rig.recipe, varieties),), afterwards=rig.passage.afterwards)
    frame, apart = Lot(what="frame"), Spot(place="workshop", held="apart")
    things = (
        (Lot(what="mount"), rig.mount is not None and rig.mount.kind in ("frame", "stand")),
        (Lot(what="foot weights"), rig.mount is not None and rig.mount.ballast_kg > 0),
        (Lot(what="core"), rig.armature.core_kg > 0),
        (Lot(what="extra"), rig.extra_kg > 0),
    )
    brought = {lot: apart for lot, is_there in things if is_there}
    work.do("make", "workshop", {frame: Spot(place="workshop"), **brought})
    there = rig.passage.made == "its place"
    if not there:
        _flowered(work, "workshop")
    loaded = {lot: Spot(place="van", held=spot.held) for lot, spot in work.now.items()}
    loaded |= {lot: Spot(place="van", held="in a bucket") for lot in work.lots if lot not in work.now}
    work.do("load", "van", loaded)
    up: ActKind = "raise" if rig.mount is None and not rig.lies else "carry in"
    work.do(up, "place", {lot: Spot(place="place", held=_held(lot, spot)) for lot, spot in work.now.items()})
    if there:
        work.do("make there", "place", {frame: Spot(place="place")})
        _flowered(work, "place")
    for goes in ("on site", "after the move", "last"):
        work.grouped(goes, "place")
    if rig.passage.afterwards in ("stays", "given"):
        work.taken("hand over", "others")
        return Acts(work.acts)
    work.do("take down", "place", {lot: Spot(place="place", held="apart") for lot in work.now})
    work.home()
    return Acts(work.acts)


def _flowered(work: Passing, place: Place) -> None:
    greens, others = work.split()
    work.do("green", place, dict.fromkeys(greens, Spot(place=place)))
    work.do("flower", place, dict.fromkeys(others, Spot(place=place)))


def _held(lot: Lot, spot: Spot) -> Held:
    return "in a bucket" if spot.held == "in a bucket" else "under it" if lot.what == "mount" else "in it"
