"""What acts cannot be: stems that go in after a move that never comes, sections of what stands, no hour at all."""

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.plan.passage import Passage
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.quantities import phrase


def check_piece(piece: Piece) -> None:
    """Refuse choices that contradict one another. Raises InvalidMeasure, with the path of the choice."""
    if piece.passage.made == "sections":
        raise InvalidMeasure(
            path="passage.made",
            message=phrase("What stands or is carried is not joined from sections."),
            limit=phrase("Make it in the workshop or where it stands; several vessels go in beside it."),
        )
    moves = piece.setting.moves_to not in (None, piece.setting.where)
    recipes = [("recipe", piece.recipe)]
    recipes += [(f"companions.{nth}.recipe", each.recipe) for nth, each in enumerate(piece.companions)]
    recipes += [] if piece.spill is None else [("spill.recipe", piece.spill.recipe)]
    for path, recipe in recipes:
        check_recipe(recipe, path=path, moves=moves, carried=piece.carried)
    check_passage(piece.passage)


def check_recipe(recipe: tuple[RecipeLine, ...], *, path: str, moves: bool, carried: bool = False) -> None:
    """Refuse stems that go in when there is no such time.

    Args:
        moves: whether the part is moved while the event lasts. carried: whether it is bound in the hand.
    Raises: InvalidMeasure.
    """
    for index, line in enumerate(recipe):
        if line.goes_in == "after the move" and not moves:
            raise InvalidMeasure(
                path=f"{path}.{index}.goes_in",
                message=phrase("It is not moved, so nothing goes in after that."),
                limit=phrase("Put them in on site or last, or say where it is moved to."),
            )
        if carried and line.goes_in not in ("with the piece", "on site"):
            raise InvalidMeasure(
                path=f"{path}.{index}.goes_in",
                message=phrase("What is bound is whole when it is handed over."),
                limit=phrase("Bind these in with the rest, or on site."),
            )
        if line.goes_in_n is not None and line.goes_in_n > line.count:
            raise InvalidMeasure(
                path=f"{path}.{index}.goes_in_n",
                message=phrase("{n} of {all} stems cannot go in later.", n=line.goes_in_n, all=line.count),
                limit=phrase("Take {all} at most, or leave it empty for all of them.", all=line.count),
            )


def check_passage(passage: Passage) -> None:
    """Refuse an hour of handing over that is none. Raises InvalidMeasure."""
    over = passage.handover
    if over is not None and over.at is not None and over.local() is None:
        raise InvalidMeasure(
            path="passage.handover.at",
            message=phrase("“{at}” is no day and time.", at=over.at),
            limit=phrase("Type both by the clock of the place, such as 2027-05-15T14:30."),
        )
