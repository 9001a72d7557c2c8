"""A report in sections, each with a mark of its content: what the one who asks has already is not sent again.

A section is named by its path in the report. Verdicts are one each, `verdicts/hold`, and so are things drawn that go
by one name, `picture.primitives/seat`: what follows a slash tells the parts of a list from one another, in order.
"""

import json
from collections.abc import Iterator, Mapping
from dataclasses import fields
from hashlib import blake2b
from itertools import groupby
from typing import Any, get_type_hints

from pydantic import BaseModel, TypeAdapter

from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.drawing.picture import Picture
from jolly_trellis.core.drawing.primitives import Primitive
from jolly_trellis.core.judging.report import Report

MOST_SECTIONS = 400
_MARK_BYTES = 8
_LISTS = ("verdicts", "picture")
_OF_REPORT = {name: TypeAdapter(hint) for name, hint in get_type_hints(Report).items() if name not in _LISTS}
_OF_PICTURE = {name: TypeAdapter(hint) for name, hint in get_type_hints(Picture).items() if name != "primitives"}
_VERDICTS = TypeAdapter(list[Verdict])
_DRAWN = TypeAdapter(list[Primitive])


class Changed(BaseModel):
    """What of a report is another than the one who asks has: the mark of every section, in order; those that are new.

    A section of a list holds those of its parts that go by its name.
    """

    marks: dict[str, str]
    sections: dict[str, Any]


def changed(report: Report, have: Mapping[str, str]) -> bytes:
    """A `Changed` as JSON.

    Args:
        have: the marks of the sections that the one who asks has.
    """
    marks, new = {}, []
    for name, written in _sections(report):
        marks[name] = mark = blake2b(written, digest_size=_MARK_BYTES).hexdigest()
        if have.get(name) != mark:
            new.append(json.dumps(name).encode() + b":" + written)
    return b'{"marks":' + json.dumps(marks).encode() + b',"sections":{' + b",".join(new) + b"}}"


def _sections(report: Report) -> Iterator[tuple[str, bytes]]:
    """Every section of a report by its path, as JSON."""
    for name, adapter in _OF_REPORT.items():
        yield name, adapter.dump_json(getattr(report, name))
    for verdict in report.verdicts:
        yield f"verdicts/{verdict.verb}", _VERDICTS.dump_json([verdict])
    for each in fields(Picture):
        if each.name in _OF_PICTURE:
            yield f"picture.{each.name}", _OF_PICTURE[each.name].dump_json(getattr(report.picture, each.name))
    used: dict[str, int] = {}
    for kind, several in groupby(report.picture.primitives, key=lambda drawn: drawn.id.rstrip("-0123456789")):
        nth = used[kind] = used.get(kind, 0) + 1
        name = f"picture.primitives/{kind}" + (f"~{nth}" if nth > 1 else "")
        yield name, _DRAWN.dump_json(list(several))
