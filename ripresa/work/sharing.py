"""Sharing between colleagues: drills as one file, and what of such a file is new here, the same, or differs."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, fields, replace
from datetime import datetime
from typing import Literal

from ripresa.core.changes import practised
from ripresa.core.drill import LONGEST_TEXT, Drill
from ripresa.core.errors import OutOfRange, RipresaError
from ripresa.core.exact import label
from ripresa.core.reading import read
from ripresa.core.reports import brief
from ripresa.core.studio import KeptDrill
from ripresa.formats.shared_file import MOST_BESIDE, MOST_DRILLS, Beside, SharedDrill
from ripresa.store import climb_lists, drills, remedies

State = Literal["new", "same", "differs"]
How = Literal["new", "version", "leave"]
#: What the fields of a drill are called, where two are compared.
_FIELDS = {
    "material": "what is played",
    "legs": "the divisions",
    "bpm": "the tempo",
    "meter": "the meter",
    "hands": "the hands",
    "accents": "the accents",
    "click": "the click",
    "instrument": "the instrument",
    "second": "the left hand",
    "purpose": "what it is for",
    "way_in": "the way in",
}


@dataclass(frozen=True, slots=True)
class Looked:
    """A drill of a file beside what is here.

    Args:
        here: The drill of the same title, if there is one. differs: In what, in words.
        brief: What the file has, in a sentence.
        beside: Names of its remedies and variants.
    """

    shared: SharedDrill
    state: State
    here: KeptDrill | None
    differs: str
    brief: str
    beside: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Choice:
    """What becomes of a drill of a file: taken as a new one, as the next version of the one here, or left."""

    index: int
    how: How
    with_beside: bool = False


def gather(drill_ids: Sequence[int]) -> tuple[SharedDrill, ...]:
    """Return drills as they are shared: their newest versions, with remedies and variants; nobody's name, no take.

    Raises:
        NotFound: There is no such drill. OutOfRange: None is named, or too many.
    """
    ids = list(dict.fromkeys(drill_ids))
    if not 1 <= len(ids) <= MOST_DRILLS:
        raise OutOfRange(f"Choose 1 to {MOST_DRILLS} drills to share.", field="drill")
    return tuple(_gathered(one) for one in ids)


def _gathered(drill_id: int) -> SharedDrill:
    drill = drills.find_drill(drill_id).drill
    cures: dict[Drill, str] = {}
    for kept in remedies.remedies_of_drill(drill_id):
        cure = practised(kept.remedy.drill, kept.remedy.part)
        if cure != drill:
            cures.setdefault(cure, kept.remedy.name)
    turned = {climb.drill.drill: ", ".join(climb.differs) for climb in climb_lists.climbs_of_drill(drill_id)}
    variants = {one: name for one, name in turned.items() if name and one != drill}
    return SharedDrill(drill, _named(cures), _named(variants))


def _named(found: dict[Drill, str]) -> tuple[Beside, ...]:
    return tuple(Beside(name, drill) for drill, name in list(found.items())[:MOST_BESIDE])


def look(shared: Sequence[SharedDrill]) -> list[Looked]:
    """Return the drills of a file, each beside the one of its title that is here."""
    here: dict[str, KeptDrill] = {}
    for one in drills.all_drills():
        here.setdefault(_title(one.drill), one)
    return [_look(one, here.get(_title(one.drill))) for one in shared]


def _title(drill: Drill) -> str:
    return " ".join(drill.title.split()).casefold()


def _look(shared: SharedDrill, here: KeptDrill | None) -> Looked:
    state: State = "new" if here is None else "same" if here.drill == shared.drill else "differs"
    differs = ", ".join(_differences(here.drill, shared.drill)) if here and state == "differs" else ""
    beside = tuple(one.name for one in (*shared.remedies, *shared.variants))
    return Looked(shared, state, here, differs, brief(read(shared.drill)), beside)


def _differences(here: Drill, there: Drill) -> Iterator[str]:
    others = False
    for one in fields(Drill):
        if getattr(here, one.name) == getattr(there, one.name):
            continue
        if one.name == "bpm":
            yield f"the tempo ({label(here.bpm)} here, {label(there.bpm)} there)"
        elif one.name in _FIELDS:
            yield _FIELDS[one.name]
        else:
            others = True
    if others:
        yield "how it is counted, fingered or said"


def take(shared: Sequence[SharedDrill], choices: Sequence[Choice], now: datetime, key: str) -> list[KeptDrill]:
    """Keep the drills of a file as they were chosen; the same key twice takes them once.

    Raises:
        OutOfRange: A choice of what is not in the file, or a version of a drill that is not here.
    """
    looked = look(shared)
    kept: list[KeptDrill] = []
    for choice in choices:
        if not 0 <= choice.index < len(looked):
            raise OutOfRange(f"This file has {len(looked)} drills.", field="choices")
        one = looked[choice.index]
        if choice.how == "leave":
            continue
        kept.append(_take(one, choice, now, f"{key}-{choice.index}"))
        if choice.with_beside:
            for number, beside in enumerate((*one.shared.remedies, *one.shared.variants)):
                titled = replace(beside.drill, title=f"{one.shared.drill.title}: {beside.name}"[:LONGEST_TEXT])
                kept.append(drills.add_drill(titled, now, f"{key}-{choice.index}-{number}"))
    return kept


def _take(one: Looked, choice: Choice, now: datetime, key: str) -> KeptDrill:
    if choice.how == "new":
        return drills.add_drill(one.shared.drill, now, key)
    if one.here is None:
        raise OutOfRange(f"“{one.shared.drill.title}” is not here, so it has no next version.", field="choices")
    try:
        return drills.save_drill(one.here.id, one.shared.drill, one.here.version, now, key)
    except RipresaError as error:
        raise OutOfRange(error.message, field="choices") from error
