"""Keys of tasks as they were kept before they stayed the same whatever the quantity, and what they are now."""

import re

_OF_PIECE = re.compile(r"(mechanics|green|tubes|flower|install|on-site)-(\d+)(?:-([a-z][a-z0-9-]*?))?(?:-(\d+))?")
_OF_ALL = re.compile(r"(condition|load|strike)-(\d+)")
_ONCE = {
    "drive": "van:drive:1",
    "drive-back": "van:drive-back:1",
    "fill": "place:fill:1",
    "unload": "workshop:unload:1",
}


def key_now(key: str) -> str:
    """The key of a task now; a key that is of now already is left as it is."""
    if ":" in key:
        return key
    if key in _ONCE:
        return _ONCE[key]
    if piece := _OF_PIECE.fullmatch(key):
        act, number, variety, nth = piece.groups()
        return f"{number}:{act}{f'-{variety}' if variety else ''}:{nth or 1}"
    if whole := _OF_ALL.fullmatch(key):
        act, nth = whole.groups()
        return f"{'van' if act == 'load' else 'place'}:{act}:{nth}"
    return key
