"""What must be asked of a place or an owner before work goes on: fire, foraging, food, animals; what was answered."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from jolly_trellis.core.event.job import Job, Made, PieceWork, Question, Work, recipe_of
from jolly_trellis.core.materials.hazards import Hazard
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.quantities import Phrase, phrase

NEAR_FOOD: frozenset[Hazard] = frozenset({"poison", "sap", "pollen", "scent"})
_ASKS: Mapping[Question, str] = {
    "fire": "{names}: dried, preserved and artificial work in a room that the public uses needs a certificate of its "
    "fire treatment, or the word of the place's fire officer. Ask, and write down who said what.",
    "foraging": "{names}: take nothing without leave of the landowner, and nothing that is protected where it grows. "
    "Ask, and write down who said what.",
    "food": "{names}: not for eating, or not beside food. Is any of it near food, drink or a cake? Ask the client; of "
    "what is poisonous a poisons authority knows.",
    "animals": "{names}: poisonous to cats or dogs. Will animals be where it stands, or where it goes afterwards? Ask "
    "the client; a vet knows.",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Asks:
    """A question with the varieties it is about, in words; what was answered, None nothing yet."""

    question: Question
    say: Phrase
    answer: str | None


def asked_of(job: Job, made: Made, varieties: Mapping[str, Variety]) -> tuple[Asks, ...]:
    """Every question that the flowers of an event ask, with its answer.

    Source: common practice, no source; hazards are from memory, and local rules come first.
    """
    answers = {each.question: each.words for each in job.answers}
    found = []
    for question in _ASKS:
        names = sorted({variety.name for work in made.works for variety in _about(question, work, varieties)})
        if names:
            say = phrase(_ASKS[question], names=", ".join(names))
            found.append(Asks(question=question, say=say, answer=answers.get(question)))
    return tuple(found)


def foraging_gate(job: Job) -> Phrase | None:
    """Why nothing is foraged yet; None where somebody has given leave."""
    if any(each.question == "foraging" for each in job.answers):
        return None
    return phrase("Not before the landowner has given leave, and that is written down.")


def fire_gate(job: Job, work: Work, varieties: Mapping[str, Variety]) -> Phrase | None:
    """Why a part may not be set up yet; None where nothing in it keeps for months, or the place has cleared it."""
    if any(each.question == "fire" for each in job.answers):
        return None
    names = ", ".join(sorted({each.name for each in _about("fire", work, varieties)}))
    if not names:
        return None
    return phrase(
        "Not before the place has said that {names} may be in the room: certificate or fire officer.", names=names
    )


def _about(question: Question, work: Work, varieties: Mapping[str, Variety]) -> Iterator[Variety]:
    """Varieties of a part that a question is about; food is asked of what stands and is carried only."""
    for line in recipe_of(work):
        variety = varieties.get(line.variety)
        if variety is None:
            continue
        hazards = frozenset(variety.hazards)
        match question:
            case "fire":
                about = variety.lasting
            case "foraging":
                about = variety.kind == "foraged"
            case "food":
                about = isinstance(work, PieceWork) and bool(hazards & NEAR_FOOD)
            case "animals":
                about = "pets" in hazards
        if about:
            yield variety
