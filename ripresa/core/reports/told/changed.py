"""What changed from one version of a drill to the next, in a few words each: ``tempo 72 → 80``."""

from collections.abc import Callable
from dataclasses import fields
from typing import Any

from ripresa.core.drill import ARTICULATIONS, CLOSINGS, FINGERINGS, SEAMS, STEPS, VOICINGS, Drill
from ripresa.core.drill.material import MATERIALS
from ripresa.core.exact import label, listed, plural
from ripresa.core.pitch import LEVELS, instrument_named
from ripresa.core.reports.told.brief_material import MATERIALS_TOLD
from ripresa.core.reports.told.clauses import (
    SWUNG,
    accents_told,
    entries_told,
    foot_told,
    hands_told,
    hits_told,
    legs_told,
    movement_told,
    reduce_told,
    second_told,
    voice_told,
)
from ripresa.core.reports.told.words import runs
from ripresa.core.rhythm import RUNS, SYSTEMS

#: Signs that a value may have and still stand beside the one before it.
_LONGEST = 48


def _material(drill: Drill) -> str:
    material: Any = drill.material
    name = next(kind.name for kind in MATERIALS if kind.value == material.kind)
    return f"{name} {MATERIALS_TOLD[material.kind](material)}"


def _plain(told: str) -> str:
    return "".join(run.text for run in runs(told))


def _inside(told: str) -> str:
    """Return what begins a sentence as it stands inside one."""
    text = _plain(told)
    return text[:1].lower() + text[1:]


def _swing(drill: Drill) -> str:
    if drill.swing.ratio == 1:
        return "straight"
    return f"{label(drill.swing.ratio)}:1 on {SWUNG[drill.swing.on]}"


def _counting(drill: Drill) -> str:
    return f"{SYSTEMS[drill.counting.system][0]}, {RUNS[drill.counting.runs][0]}"


def _articulation(drill: Drill) -> str:
    known = {share: name for share, name, _ in ARTICULATIONS}
    return known.get(drill.articulation, f"{label(drill.articulation)} of their length")


#: Field of a drill → what it is called, and how it is in words.
_FIELDS: dict[str, tuple[str, Callable[[Drill], str]]] = {
    "title": ("title", lambda drill: f"“{drill.title}”"),
    "material": ("material", _material),
    "legs": ("divisions", lambda drill: legs_told(drill.legs)),
    "bpm": ("tempo", lambda drill: label(drill.bpm)),
    "meter": ("meter", lambda drill: drill.meter),
    "seam": ("between stages", lambda drill: SEAMS[drill.seam][0]),
    "closing": ("closing tonic", lambda drill: CLOSINGS[drill.closing][0]),
    "hands": ("hands", lambda drill: _inside(hands_told(drill))),
    "accents": ("accents", lambda drill: accents_told(drill.accents)),
    "click": ("click", lambda drill: drill.click.words),
    "instrument": ("instrument", lambda drill: instrument_named(drill.instrument).name),
    "capo": ("capo", lambda drill: f"at fret {drill.capo}" if drill.capo else "none"),
    "swing": ("swing", _swing),
    "counting": ("count words", _counting),
    "articulation": ("length of notes", _articulation),
    "breath": ("breath", lambda drill: f"{label(drill.breath)} s" if drill.breath else "none"),
    "body": ("movement", movement_told),
    "voice": ("voice", voice_told),
    "reduce": ("what is played", reduce_told),
    "way_in": ("way in", lambda drill: listed([STEPS[step][0] for step in drill.way_in]) or "none"),
    "tags": ("tags", lambda drill: ", ".join(drill.tags) or "none"),
    "fingering": ("fingering", lambda drill: FINGERINGS[drill.fingering][0]),
    "place": ("position", lambda drill: drill.place.words or "where it is found"),
    "fingers": ("own fingers", lambda drill: f"“{drill.fingers}”" if drill.fingers else "none"),
    "phrases": ("phrases", lambda drill: f"from {drill.phrases}" if drill.phrases else "none written"),
    "register": ("register", lambda drill: f"{drill.register:+d}" if drill.register else "as written"),
    "folded": ("range", lambda drill: "folded into it" if drill.folded else "as written"),
    "purpose": ("purpose", lambda drill: f"“{drill.purpose}”" if drill.purpose else "none"),
    "second": ("left hand", lambda drill: second_told(drill) if drill.second.is_there else "none"),
    "level": ("level", lambda drill: LEVELS[drill.level][0]),
    "hits": ("hits", lambda drill: _inside(hits_told(drill)) if drill.hits.is_written or drill.hits.fills else "none"),
    "ornaments": ("notes not struck", lambda drill: str(len(drill.ornaments))),
    "foot": ("foot", foot_told),
    "enters": ("entries", lambda drill: entries_told(drill) or "all from bar 1"),
    "prompt": ("what is talked of", lambda drill: f"“{drill.prompt}”" if drill.prompt else "nothing"),
    "cues": ("cues", lambda drill: plural(len(drill.cues), "cue")),
    "voicing": ("voicing", lambda drill: VOICINGS[drill.voicing][0]),
    "stage_counts": ("count of the way in", lambda drill: plural(len(drill.stage_counts), "step")),
}


def changed_told(before: Drill, after: Drill) -> tuple[str, ...]:
    """Return what changed from one drill to another, in the order of its fields; nothing where they are the same."""
    return tuple(
        _changed(*_FIELDS[one.name], before, after)
        for one in fields(Drill)
        if getattr(before, one.name) != getattr(after, one.name)
    )


def _changed(name: str, told: Callable[[Drill], str], before: Drill, after: Drill) -> str:
    was, now = (_plain(told(drill)) for drill in (before, after))
    if was == now or len(now) > 2 * _LONGEST:
        # Something of it that these words do not tell, or too much of it.
        return name
    if len(was) > _LONGEST:
        return f"{name} now {now}"
    # An arrow stands between stages already.
    return f"{name} {now} instead of {was}" if "→" in was + now else f"{name} {was} → {now}"
