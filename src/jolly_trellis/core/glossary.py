"""What the words of this program mean, once for its screens and its documents."""

from dataclasses import dataclass

from jolly_trellis.core.checks.verdicts import TIGHT_FROM


@dataclass(frozen=True, slots=True)
class Term:
    """A word, and what it means in one or two sentences."""

    word: str
    meaning: str


GLOSSARY: tuple[Term, ...] = (
    Term("hold", "Whether stems stay where they are put: seats, depth, play, and the mechanic in its vessel."),
    Term("stand", "Whether it stays upright: tilted, nudged, in wind, and at every step while it is made."),
    Term("drink", "Whether every cut end stays under water to the end, with what evaporates and is drunk."),
    Term("travel", "Whether it comes through the drive: tipping, sliding, splashing."),
    Term("hang", "Whether what hangs is borne, with one line gone too, and who says what a point may carry."),
    Term("hide", "How much of wire, tape, rim and underside shows to guests, seated and standing."),
    Term("see", "Whether people at the table see one another past it."),
    Term("lift", "Whether one or two people may lift it as it is carried."),
    Term("holds", "Within its limits, with something to spare."),
    Term("tight", f"Within its limits, with little to spare: as a rule more than {TIGHT_FROM:g} of them is used."),
    Term("fails", "Past a limit. Each that can be mended says by what, and how it stands after that."),
    Term("not needed", "Nothing of the kind is asked of this piece: nobody sits across it, nothing hangs."),
    Term("cannot say", "A fact is missing, and nothing is guessed in its place. What is missing is named."),
    Term("use", "0.42 is 0.42 of what it can bear; the mark on the bar is 1, all of it."),
    Term("as planned", "With the stems, the water and the weights that are typed."),
    Term("with heavy stems", "With all that may weigh more: heavy stems, vessels filled up, full tubes."),
    Term("with low water", "With the least water it comes to before it is filled up again."),
    Term("size wanted", "The height, width and depth that the flowers are to have: the dotted line on the drawing."),
    Term("mechanic", "What holds the stems in place of foam: netting, a frog, twigs, a lattice."),
    Term(
        "hold-back of the rim",
        "How much wider than the mouth a cushion is, so that it springs against the wall.",
    ),
    Term("layer gap", "How far one layer of a folded cushion lies under the other."),
    Term("cell", "One opening of the netting; across the roll they are counted as cells, along it as rows."),
    Term("tuck", "The cut edge that is bent inwards, so that no end is sharp."),
    Term("seat", "The opening that a stem goes through, or the pin that it stands on."),
    Term("play", "How far a stem's head can sway before its mechanic holds it."),
    Term("cut end", "The lower end of a stem, which must be under water."),
    Term("margin, base, focal, line, filler, airy", "Roles of stems, in the order in which they usually go in."),
    Term("armature", "What hung or mounted flowers are fixed to: a rope of netting, a panel, a ring, a frame."),
    Term(
        "its ends",
        "How a line is fastened: grips or a pressed sleeve (ferrule) on steel, a knot in cord.",
    ),
    Term("second bond", "A line to a point of its own, nearly tight, that keeps the work if the others go."),
    Term("proof", "A load hung for some minutes, nobody under it, before flowers go in."),
    Term("not cleared", "It hangs over people, and something of it fails or cannot be said."),
    Term("cut open", "The piece seen level, with the inside of its vessel bare."),
    Term("worst", "From where most of what is to be hidden shows to guests."),
    Term("run sheet", "Who does what, where and when, on the day."),
    Term("figure", "A number the program reckons with. Each says where it comes from, and can be one's own."),
)


def written() -> str:
    """The glossary as a page of the documents."""
    rows = [f"**{each.word}**: {each.meaning}" for each in GLOSSARY]
    return (
        "\n\n".join(["# Words", "What they mean on screens and papers; the program shows the same (`?`).", *rows])
        + "\n"
    )
