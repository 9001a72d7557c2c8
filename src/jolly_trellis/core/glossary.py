"""What the words of this program mean, once for its screens and its documents."""

from dataclasses import dataclass

from jolly_trellis.core.checks.verdicts import TIGHT_FROM
from jolly_trellis.core.judging.rungs import RUNGS
from jolly_trellis.core.quantities import worded


@dataclass(frozen=True, slots=True)
class Term:
    """A word, and what it means in one or two sentences."""

    word: str
    meaning: str


GLOSSARY: tuple[Term, ...] = (
    *(Term(each.verb, each.asks) for each in RUNGS.values()),
    Term("holds", "Within its limits, with something to spare."),
    Term(
        "tight",
        worded(
            "Within its limits, with little to spare: as a rule more than {share} of them is used.",
            share=f"{TIGHT_FROM:g}",
        ),
    ),
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
    Term("spill, spill hangs", "Stems that go over the rim; how far below it the longest of them hangs."),
    Term("stem in by", "How much of a stem is inside its tube, in the water or dry."),
    Term("carried out of water", "How long cut ends are dry on the way and while it is made."),
    Term("stiffness", "How far a stem bends under its own head: soft, medium or woody."),
    Term("stems bought beyond", "Spare stems for what breaks or opens late, as a share of those that are planned."),
    Term("measured fill, to the rim", "What it holds by pouring; where it is known, it goes before the drawing."),
    Term("rim drops by", "How far the rim of the bowl stands below the edge of what it nests in."),
    Term("base, under the floor", "What the vessel stands on below the floor of its inside."),
    Term("stacked", "One thing on another: what the vessel rests in or on, and the glue or putty between them."),
    Term("putty", "A ring of it between two dry, clean things holds them together."),
    Term("counterweight", "Stone or sand low in the vessel, or behind it, against tipping."),
    Term("edge tucked in", "How far the cut edge is bent inwards, so that no end is sharp."),
    Term("turns of the strip", "How many times a strip of netting is rolled round itself."),
    Term("must lift off", "The flowers leave the vessel whole, with what holds them, and go back again."),
    Term("wire and rim", "Whether guests may see wire, tape and the rim, or all of it is to be hidden."),
    Term("underside", "What the binding looks like from below: a collar of leaves hides it."),
    Term("slack", "How much longer the second bond is than straight: how far the work may drop before it holds."),
    Term(
        "let out for levelling",
        "What each line is cut longer by, so that all can be tightened until the work hangs level.",
    ),
    Term("stated by", "Who says what it may carry: whoever answers for the place, a drawing, a plate on it."),
    Term("may carry", "What a hang point is stated to bear, straight down; without it nothing is cleared."),
    Term("hook is rated", "What is stamped on the hook. Without it nobody can say what it bears."),
    Term("mounted on", "What it is fixed to, that does not hang: a wall, a column, a rail, a ledge."),
    Term("guyed or tied to", "What keeps it from falling over, beside its own foot."),
    Term("bare table all round", "How much of the table shall stay free between the flowers and its edge."),
    Term("time there is", "The hours that are there for making, from the first stem to loading."),
    Term("armature", "What hung or mounted flowers are fixed to: a rope of netting, a panel, a ring, a frame."),
    Term(
        "its ends",
        "How a line is fastened: grips or a pressed sleeve (ferrule) on steel, a knot in cord.",
    ),
    Term("second bond", "A line to a point of its own, nearly tight, that keeps the work if the others go."),
    Term("snake", "A long narrow roll of netting that flowers go into all along, hung or laid."),
    Term("proof, proof load", "A load hung for some minutes, nobody under it, before flowers go in."),
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
