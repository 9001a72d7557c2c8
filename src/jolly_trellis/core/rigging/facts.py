"""What may be missing of hung or mounted work: each fact with its field in the plan, the brief, or the survey."""

from jolly_trellis.core.missing import fact

_ENDS = "what {line} keeps at its ends: a {fitting} does not belong in {kind}; take {remedy}"

POINT_RATING = fact("point-rating", "points.{}.{}", "what {point} may carry, and who states it")
BOND_POINT_RATING = fact(
    "bond-point-rating",
    "points.{}.{}",
    "what {point} may carry, where the second bond leads, and who states it",
)
POINT_OFF_PLUMB = fact(
    "point-off-plumb", "points.{}.rated_within_rad", "what {point} may carry when pulled {off} off straight down"
)
POINT_OFF_WALL = fact(
    "point-off-wall", "points.{}.rated_within_rad", "what {point} may carry when pulled {off} off its wall"
)
POINT_SWUNG = fact(
    "point-swung",
    "points.{}.rated_within_rad",
    "what {point} may carry when pulled {off} off straight down, as wind swings it",
)
POINT_SWUNG_WALL = fact(
    "point-swung-wall",
    "points.{}.rated_within_rad",
    "what {point} may carry when pulled {off} off its wall, as wind swings it",
)
POINT_MADE_FOR = fact("point-made-for", "points.{}.made_for", "what {point} was made for")
POINT_PULL_OUT = fact("point-pull-out", "points.{}.pull_out_n", "what {point} bears straight out of the wall")
STANDS_OUT = fact("stands-out", "mount.arm_m", "how far the work stands out from the wall that {point} is in")
HARDWARE_MARK = fact(
    "hardware-mark", "lines.{}.hardware.{}.wll_n", "what working load the {kind} in {line} is marked with"
)
BOND = fact("bond", "bond", "the second bond: its own steel line to its own hang point, should everything else let go")
BOND_LEADS_TO = fact("bond-leads-to", "bond.point", "which hang point of its own the second bond leads to")
LINE_ENDS = fact(
    "line-ends",
    "lines.{}.spec.fitting",
    _ENDS,
)
BOND_ENDS = fact(
    "bond-ends",
    "bond.spec.fitting",
    _ENDS,
)
CORD_ENDS = fact(
    "cord-ends",
    "armature.carrier.fitting",
    _ENDS,
)
HANGS_FOR = fact(
    "hangs-for",
    "{}",
    "how long it hangs on monofilament, which creeps: when it goes up, and when the event ends",
    of="event",
)
MOUNT_ACROSS = fact("mount-across", "mount.width_m", "how far across the {mount} is, as bands and ties go round it")
MOUNT_WEIGHT = fact("mount-weight", "mount.mass_kg", "what the {mount} weighs")
MOUNT_FEET = fact("mount-feet", "mount.{}", "how wide and deep the {mount} stands")
MOUNT_SLIDES = fact(
    "mount-slides",
    "mount.{}",
    "what the {mount}'s feet are of and stand on, or what it is guyed to, as it may slide",
)
LEANS = fact(
    "leans",
    "mount.{}",
    "how far its middle stands out from the wall, and how far under its screws it leans on it",
)
MOUNT_LOAD = fact(
    "mount-load",
    "mount.load_kg",
    "what the {mount} may carry: as its maker states, or as a trial has shown, for all of it",
)
MOUNT_LOAD_BY = fact("mount-load-by", "mount.{}", "who states what the {mount} may carry, and when")
MOUNT_SIGNED = fact(
    "mount-signed",
    "mount.signed_by",
    "which competent person signs for the {mount}, as people can be under or beside it",
)
MOUNT_TIED = fact(
    "mount-tied",
    "mount.tied_to",
    "what fixed thing the {mount} is guyed or tied to, as people can be under or beside it",
)
BEAM_RATING = fact(
    "beam-rating", "beams.{}.rating_n", "what {beam} may carry in all, who states it and when", of="survey"
)
BEAM_OTHERS = fact(
    "beam-others",
    "parts",
    "what {others} hangs on {beam} with, which could not be worked out",
    of="line-up",
)
