"""The one home of generators: drills of every kind that the core can read, and numbers of the job.

To make a drill takes ten times as long as to check a law on it. So the tests take theirs from a corpus that
``tools.corpus`` made of these very generators (``make corpus``); ``make search`` lets them make others, each time.
"""

import json
import os
from fractions import Fraction as Standard
from functools import cache
from pathlib import Path
from typing import Any

from hypothesis import settings
from hypothesis import strategies as st

from ripresa.core.drill import (
    CLOSINGS,
    DIVISIONS,
    FEET,
    FINGERINGS,
    FROMS,
    MOVEMENTS,
    SCHOOLS,
    SEAMS,
    VOICES,
    VOICINGS,
    Body,
    Cue,
    Drill,
    Enters,
    FootLayer,
    Hits,
    Leg,
    NeckPlace,
    Ornamented,
    Reduce,
    StageCount,
)
from ripresa.core.drill.accents import Backbeat, EachBeat, EveryNth, NoAccents, TypedAccents, Walk
from ripresa.core.drill.click import CLICK_PLANS, ByMeter, DropOut, NamedClick, Thinned, TypedClick
from ripresa.core.drill.click.made import OfTheSlots
from ripresa.core.drill.hands import (
    ARTICULATION_PATTERNS,
    CIRCUITS,
    RESTARTS,
    Articulated,
    ByOrder,
    ByPlace,
    Economy,
    Letters,
    NoHands,
)
from ripresa.core.drill.material import (
    FingerOrder,
    Picked,
)
from ripresa.core.drill.second import (
    BALANCES,
    HOLDS,
    INTERVALS,
    STARTS,
    ChordsBelow,
    Contrary,
    OneKey,
    OwnLine,
    Parallel,
    SecondHand,
)
from ripresa.core.drill.second import FIGURES as BROKEN
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import parse_exact
from ripresa.core.pitch import INSTRUMENTS, LEVELS
from ripresa.core.reading import read, unreduced
from ripresa.core.rhythm import METERS, RATIOS, Counting, Swing
from ripresa.formats.drill_file import from_plain
from tests.materials import MATERIALS, arpeggios, cells, counts, numbers, one_notes, scale_runs, sequences, slot_lines

#: Whether drills are made anew at each run instead of taken from the corpus.
IS_SEARCH = bool(os.environ.get("RIPRESA_SEARCH"))
CORPUS = Path(__file__).parent / "corpus.jsonl"


def fractions(least: F | int, most: int, parts: int) -> st.SearchStrategy[F]:
    """Return the numbers between two, with so many parts of a whole at most."""
    low = Standard(F(least).numerator, F(least).denominator)
    return st.fractions(low, most, max_denominator=parts).map(F)


bpms = fractions(20, 320, 12)
lengths = fractions(0, 100, 60)
divisions = st.sampled_from(DIVISIONS)
whole_divisions = st.integers(1, 8)
meters = st.sampled_from(list(METERS.values()))

materials = st.one_of(*MATERIALS.values())
hands = st.one_of(
    st.just(NoHands()),
    st.builds(ByPlace, lead=st.sampled_from(["down", "up"]), odd=st.sampled_from(["through", "restart"])),
    st.builds(
        Letters,
        lead=st.sampled_from(["R", "L"]),
        odd=st.sampled_from(["through", "restart"]),
        pattern=st.sampled_from([(), ("R", "L", "R", "R")]),
    ),
    st.builds(Economy, lead=st.sampled_from(["down", "up"])),
    st.builds(
        Articulated,
        pattern=st.sampled_from([*ARTICULATION_PATTERNS, *CIRCUITS]),
        restart=st.sampled_from(list(RESTARTS)),
    ),
    st.builds(
        ByOrder,
        cycle=st.lists(st.sampled_from(["D", "U", "R", "L", "T", "K", "-"]), min_size=0, max_size=5).map(
            lambda rest: ("D", *rest)
        ),
        restart=st.sampled_from(list(RESTARTS)),
    ),
)
accents = st.one_of(
    st.just(NoAccents()),
    st.just(EachBeat()),
    st.just(Backbeat()),
    st.builds(EveryNth, size=numbers(EveryNth, "size", 9), restart=st.sampled_from(list(RESTARTS))),
    st.builds(Walk, width=numbers(Walk, "width", 3), bars=numbers(Walk, "bars", 3)),
    st.builds(
        TypedAccents,
        cycle=st.lists(st.sampled_from(["accent", "plain", "ghost"]), min_size=1, max_size=5).map(tuple),
        restart=st.sampled_from(list(RESTARTS)),
    ),
)

clicks = st.one_of(
    st.builds(NamedClick, plan=st.sampled_from(list(CLICK_PLANS))),
    st.builds(Thinned, every=st.sampled_from([F(2), F(16), F(3, 2)]), by=st.sampled_from([F(0), F(1, 3)])),
    st.builds(
        DropOut, on=numbers(DropOut, "on", 3), off=numbers(DropOut, "off", 3), grows=numbers(DropOut, "grows", 2)
    ),
    st.builds(ByMeter, first=st.just("every_beat"), second=st.sampled_from(["every_bar", "off_beats"])),
    st.builds(OfTheSlots, which=st.sampled_from(["all", "left_out"])),
    st.builds(TypedClick, text=st.sampled_from(["1 & (2) a", ">1 | (1) 2 trip let"])),
)

#: Cell-made, typed, and such as take turns, bar by bar and leg by leg.
other_meters = st.sampled_from(
    ["3/4 +1/16", "3/4 -2/16", "4/4 +1/16@2", "7/4 (3+4)", "11/8 (3+3+3+2)", "3/4 | 7/8 (2+2+3)", "3/4 ; 5/8 (2+3)"]
)
tuplets = st.sampled_from([F(3, 2), F(4, 3), F(5, 2), F(7, 4)])
leg_divisions = st.one_of(divisions, divisions, tuplets)
some_legs = st.lists(
    # Of one division mostly; else two or three that take turns, slow ones among them.
    st.one_of(
        leg_divisions.map(Leg),
        st.builds(Leg, leg_divisions, st.lists(leg_divisions, min_size=1, max_size=2).map(tuple)),
    ),
    min_size=1,
    max_size=3,
).map(tuple)
plays = st.one_of(
    st.builds(Parallel, interval=st.sampled_from(list(INTERVALS))),
    st.builds(Contrary, start=st.sampled_from(list(STARTS))),
    st.builds(OwnLine, text=st.sampled_from(["1 5 3 5", "C3*2 r >G3 ~E3"])),
    st.builds(OneKey, note=st.sampled_from(["C3", ""]), hold=st.sampled_from(list(HOLDS))),
    st.builds(ChordsBelow, chords=st.sampled_from(["C | G7", "F C/E"]), figure=st.sampled_from(list(BROKEN))),
)
seconds = st.one_of(
    st.just(SecondHand()),
    st.builds(
        SecondHand,
        plays=plays,
        legs=st.one_of(st.just(()), some_legs),
        accents=accents,
        articulation=st.sampled_from([F(1), F(1, 2)]),
        balance=st.sampled_from(list(BALANCES)),
        phrase=st.sampled_from(["", "to-ge-ther now"]),
    ),
)
two_hands = seconds.filter(lambda second: second.is_there)
reduces = st.one_of(
    st.just(Reduce()),
    st.just(Reduce()),
    st.builds(Reduce, part=st.sampled_from(["hits", "between", "first_half", "second_half"])),
    st.just(Reduce("hand", "D")),
    st.just(Reduce("hand", "L")),
    st.builds(Reduce, part=st.sampled_from(["in_turn", "composite"])),
)


def _fitting(parts: dict[str, Any]) -> dict[str, Any]:
    """Return parts with an instrument that can play them: strings for what is picked, keys for two hands."""
    fitting = dict(parts)
    instrument = INSTRUMENTS[parts["instrument"]]
    if isinstance(parts["material"], Picked | FingerOrder) and not instrument.strings:
        fitting["instrument"] = "guitar"
    instrument = INSTRUMENTS[fitting["instrument"]]
    if instrument.voice != "keys":
        fitting["second"] = SecondHand()
    if not instrument.strings and parts["fingering"] != "none":
        fitting["fingering"] = "usual"
    return fitting


def _made(parts: dict[str, Any]) -> Drill | None:
    """Return a drill of such parts; None where they do not go together."""
    try:
        drill = Drill(**_fitting(parts))
        unreduced(read(drill))
    except RipresaError:
        return None
    return drill


PARTS: dict[str, st.SearchStrategy[Any]] = {
    "title": st.text(min_size=1, max_size=40).filter(lambda text: bool(text.strip())),
    "material": materials,
    "legs": some_legs,
    "bpm": bpms,
    "meter": st.one_of(st.sampled_from(list(METERS)), other_meters),
    "seam": st.sampled_from(list(SEAMS)),
    "closing": st.sampled_from(list(CLOSINGS)),
    "hands": hands,
    "accents": accents,
    "click": clicks,
    "instrument": st.sampled_from(list(INSTRUMENTS)),
    "swing": st.builds(Swing, ratio=st.sampled_from([ratio for ratio, _, _ in RATIOS]), on=st.sampled_from([2, 4])),
    "counting": st.sampled_from(
        [Counting(), Counting("syllables"), Counting("own", "2: # und"), Counting("ands"), Counting(runs="eight")]
    ),
    "body": st.builds(Body, movement=st.sampled_from(list(MOVEMENTS)), every=st.sampled_from([F(1), F(2), F(1, 2)])),
    "voice": st.sampled_from(list(VOICES)),
    "reduce": reduces,
    "way_in": st.sampled_from([steps for _, _, steps in SCHOOLS.values()]),
    "tags": st.sampled_from([(), ("warm up", "left hand")]),
    "articulation": st.sampled_from([F(1), F(3, 4), F(1, 2)]),
    "breath": st.sampled_from([F(0), F(3), F(10)]),
    "fingering": st.sampled_from(list(FINGERINGS)),
    "place": st.sampled_from([NeckPlace(), NeckPlace(5), NeckPlace(string=5)]),
    "register": st.integers(-1, 1),
    "folded": st.booleans(),
    "purpose": st.text(max_size=40),
    "level": st.sampled_from(list(LEVELS)),
    "second": seconds,
    "hits": st.one_of(
        st.just(Hits()),
        st.builds(
            Hits,
            text=st.sampled_from(["", "1", "1 a | 3 ~&", "(1) trip"]),
            fills=st.sampled_from([(), (0, 3), (5, 6, 8, 11)]),
            bars=st.integers(1, 2),
            filled=st.sampled_from(list(FROMS)),
        ),
    ),
    "ornaments": st.sampled_from(
        [(), (Ornamented(1, 1, 1), Ornamented(1, 2, 0, "pull"), Ornamented(2, 1, 3, "slide"))]
    ),
    "foot": st.builds(
        FootLayer,
        which=st.sampled_from(list(FEET)),
        every=st.sampled_from([F(1), F(2), F(1, 2)]),
        pattern=st.sampled_from(["", "1", "1 & | 2"]),
    ),
    "enters": st.builds(
        Enters, foot=st.integers(1, 3), count=st.integers(1, 3), hands=st.integers(1, 2), movement=st.integers(1, 3)
    ),
    "prompt": st.text(max_size=20),
    "cues": st.sampled_from([(), (Cue("drop the wrist", "leg", 1), Cue("low", "station", 2), Cue("breathe"))]),
    "voicing": st.sampled_from(list(VOICINGS)),
    "stage_counts": st.sampled_from([(), (StageCount("say", Counting("ands")),)]),
}
drill_parts = st.fixed_dictionaries(PARTS)


def made_with(material: st.SearchStrategy[Any]) -> st.SearchStrategy[Drill]:
    """Return drills of some materials that can be read, made anew."""
    parts = st.fixed_dictionaries({**PARTS, "material": material})
    return parts.map(_made).filter(lambda drill: drill is not None)  # type: ignore[return-value]


def made_for_two_hands() -> st.SearchStrategy[Drill]:
    """Return drills for two hands that can be read, made anew."""
    keys = {
        "material": st.one_of(scale_runs, arpeggios, sequences, counts, cells, slot_lines, one_notes),
        "instrument": st.sampled_from(["any", "piano"]),
        "hands": st.just(NoHands()),
        "second": two_hands,
        "way_in": st.just(()),
        "reduce": st.just(Reduce()),
    }
    parts = st.fixed_dictionaries({**PARTS, **keys})
    return parts.map(_made).filter(lambda drill: drill is not None)  # type: ignore[return-value]


#: What each part of the corpus is made by: every kind of material, and two hands.
MAKERS: dict[str, st.SearchStrategy[Drill]] = {
    **{kind: made_with(material) for kind, material in MATERIALS.items()},
    "two hands": made_for_two_hands(),
}


@cache
def kept_drills(kind: str) -> list[Drill]:
    """Return the drills of a part of the corpus, the same ones for all who ask."""
    rows = (json.loads(line) for line in CORPUS.read_text("utf-8").split("\n")[1:] if line)
    return [from_plain(row["drill"]) for row in rows if row["kind"] == kind]


def drills_of(*kinds: str) -> st.SearchStrategy[Drill]:
    """Return drills of some kinds that can be read: those of the corpus, or others where one searches."""
    if IS_SEARCH:
        return st.one_of(*(MAKERS[kind] for kind in kinds))
    return st.deferred(lambda: st.sampled_from([drill for kind in kinds for drill in kept_drills(kind)]))


#: Drills of every kind of material.
drills = drills_of(*MATERIALS)
#: Drills for two hands.
two_handed = drills_of("two hands")


def so_many(usual: int, searching: int) -> settings:
    """Return how many examples are tried: fewer where each takes long, more where one searches."""
    return settings(max_examples=searching if IS_SEARCH else usual)


def legs(*values: int | str) -> tuple[Leg, ...]:
    """Return legs with these divisions."""
    return tuple(Leg(parse_exact(value)) for value in values)
