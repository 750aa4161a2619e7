"""For each figure a take in which it alone is wrong: its sentence, number, sign and side; and where its limit is."""

from dataclasses import replace
from typing import Any

import pytest

from ripresa.core.exact import Fraction as F
from ripresa.core.takes import Fault, Figures, Furthest, Limits, PlaceFigures, furthest_limit, misplaced
from ripresa.core.takes.faults import check_all
from ripresa.core.takes.figures import (
    AccentFigures,
    HandFigures,
    HeldFigures,
    LandingFigures,
    LegFigures,
    LostBeat,
    SeamFigures,
    SlotFigures,
    Stray,
    SwingFigures,
    TogetherFigures,
)
from ripresa.core.takes.interval import Interval
from ripresa.core.takes.telling import fault_words
from ripresa.core.takes.verdict import passes_to_settle

GAP = 0.1


def of(value: float, half: float = 0.001) -> Interval:
    return Interval(value, half, 400)


SLOTS = tuple(SlotFigures(number, word, of(0), 0.25, ()) for number, word in enumerate(("1", "e", "&", "a")))
LEG = LegFigures(F(4), GAP, of(0.005), of(0.0, 0.01), SLOTS)
SEAM = SeamFigures("division", "3 → 4", GAP, of(0), of(0), (0.0, 0.0, 0.0, 0.0), (0.0, 0.0, 0.0))
HAND = HandFigures("R", of(0.005), of(0), None)
ACCENTS = AccentFigures(of(6, 0.2), None, 0, 40, ())
STRAY = Stray(0.06, GAP, False, 7, 1)
PLACE = PlaceFigures(11, "bar 2, beat 3, &", GAP, of(0.11, 0.004), (0.11, 0.10, 0.12, 0.11))
FURTHEST = Furthest(of(0.1, 0.005), "bar 3, beat 1", GAP, 0.0, True, 8, 1)
#: Everything is heard, and lies well inside its limit.
WELL = Figures(
    due=400,
    matched=400,
    missed=0,
    extra=0,
    wrong=0,
    gap_seconds=GAP,
    bias=of(0),
    with_click=of(0),
    tempo_percent=of(0, 0.05),
    bend=None,
    spread=of(0.005),
    legs=(LEG,),
    seams=(SEAM,),
    landings=(LandingFigures("hits", GAP, of(0), 10),),
    fills=of(0, 0.1),
    hands=(HAND, replace(HAND, symbol="L")),
    accents=ACCENTS,
    articulation=of(0.5, 0.01),
    together=TogetherFigures(of(0), of(0.005), GAP),
)


def slot(number: int, habit: Interval) -> tuple[SlotFigures, ...]:
    return tuple(replace(one, habit=habit) if one.slot == number else one for one in SLOTS)


def swung(heard: float, asked: int = 1, more: float = 0.0) -> LegFigures:
    """Return fours whose pairs of slots swing so much, a little unevenly."""
    late = 2 * GAP * (heard / (1 + heard) - asked / (1 + asked)) / 2
    slots = [replace(one, habit=of((-late, late, -late - more, late + more)[one.slot])) for one in SLOTS]
    return replace(LEG, slots=tuple(slots), swing=SwingFigures(of(heard, 0.02), F(asked), 4))


def hand(symbol: str, **more: Any) -> tuple[HandFigures, ...]:
    return tuple(replace(one, **more) if one.symbol == symbol else one for one in WELL.hands)


def states(figures: Figures, state: str, **more: Any) -> list[str]:
    found = check_all(figures, Limits(), **more)
    return [fault_words(one.fault, figures) for one in found if one.state == state]


def lost(kind: str, beats: float) -> tuple[LostBeat, ...]:
    return (LostBeat(kind, beats, beats, 7, 2),)


@pytest.mark.parametrize(
    ("wrong", "says"),
    [
        ({"legs": (replace(LEG, spread=of(0.015)),)}, "Uneven at 4 a beat: spread 15 ± 1 ms (limit 10)."),
        (
            {"legs": (replace(LEG, spread=of(0.015), hand="L"),)},
            "Uneven at 4 a beat, left hand: spread 15 ± 1 ms (limit 10).",
        ),
        (
            {"legs": (replace(LEG, slots=slot(3, of(0.02))),)},
            "“a” of 4 a beat comes 20 ± 1 ms late each time (limit 12).",
        ),
        (
            {"legs": (replace(LEG, slots=slot(1, of(-0.02)), hand="R"),)},
            "“e” of 4 a beat in the right hand comes 20 ± 1 ms early each time (limit 12).",
        ),
        (
            {"legs": (replace(LEG, crowding=of(0.4, 0.05)),)},
            "Crowded: the last note of 4 a beat is held 40 ± 5 % longer than the others (limit 25 %).",
        ),
        ({"legs": (swung(2.0),)}, "Swung, 2.0 ± 0.1 to 1 at 4 a beat, where straight is asked (limit 1.6 to 1)."),
        (
            {"legs": (swung(1.02, 2),)},
            "Straight, 1.0 ± 0.1 to 1 at 4 a beat, where a swing of 2:1 is asked (limit 1.2 to 1).",
        ),
        (
            {"legs": (replace(swung(3.99, 2), hand="L"),)},
            "Swung in the left hand, 4.0 ± 0.1 to 1 at 4 a beat, where a swing of 2:1 is asked (limit 3.7 to 1).",
        ),
        ({"tempo_percent": of(2, 0.1)}, "Runs ahead: 2.0 ± 0.1 % faster than asked (limit 1 %)."),
        ({"tempo_percent": of(-2, 0.1)}, "Falls behind: 2.0 ± 0.1 % slower than asked (limit 1 %)."),
        ({"with_click": of(0.05)}, "Beside the click: 50 ± 1 ms late from the start (limit 25)."),
        ({"with_click": of(-0.05)}, "Beside the click: 50 ± 1 ms early from the start (limit 25)."),
        (
            {"seams": (replace(SEAM, first=of(0.04), each=(0.05, 0.05, 0.01, -0.05)),)},
            "The change: 40 ± 1 ms late after 3 → 4, 2 times of 4 (limit 20).",
        ),
        (
            {"seams": (replace(SEAM, first=of(-0.04), each=(-0.04,), kind="meter", name="3/4 → 7/8"),)},
            "The change: 40 ± 1 ms early after 3/4 → 7/8, heard once (limit 20).",
        ),
        ({"landings": (LandingFigures("hits", GAP, of(0.03), 9),)}, "The hits: 30 ± 1 ms late, 9 times (limit 20)."),
        (
            {"landings": (LandingFigures("arrivals", GAP, of(-0.03), 3),)},
            "The arrival: 30 ± 1 ms early, 3 times (limit 20).",
        ),
        ({"fills": of(4, 0.5)}, "Inside the fills 4.0 ± 0.5 % faster than the rest (limit 3 %)."),
        ({"fills": of(-4, 0.5)}, "Inside the fills 4.0 ± 0.5 % slower than the rest (limit 3 %)."),
        ({"hands": hand("L", spread=of(0.015))}, "L is the uneven one: spread 15 ± 1 ms (limit 10)."),
        ({"hands": hand("R", spread=of(0.015))}, "R is the uneven one: spread 15 ± 1 ms (limit 10)."),
        ({"hands": hand("L", habit=of(0.02))}, "L comes 20 ± 1 ms late beside the others (limit 12)."),
        ({"hands": hand("R", habit=of(-0.02))}, "R comes 20 ± 1 ms early beside the others (limit 12)."),
        (
            {"together": TogetherFigures(of(0.03), of(0.005), GAP)},
            "The hands are apart where they meet: the left comes 30 ± 1 ms after the right, 400 times (limit 20).",
        ),
        (
            {"together": TogetherFigures(of(-0.03), of(0.005), GAP)},
            "The hands are apart where they meet: the right comes 30 ± 1 ms after the left, 400 times (limit 20).",
        ),
        (
            {"accents": replace(ACCENTS, over_plain=of(1, 0.2))},
            "Flat: accents stand 1.0 ± 0.2 dB over plain notes (asked 4 dB).",
        ),
        ({"accents": replace(ACCENTS, misplaced=7)}, "7 of 40 accents fell on the note beside theirs."),
        (
            {"missed": 10, "extra": 5, "wrong": 5},
            "10 missed, 5 extra, 5 of another pitch of 400 notes (limit 3 %, 12 here).",
        ),
        (
            {"strays": (STRAY,) * 14, "missed": 1},
            "1 missed, 14 misplaced of 400 notes (limit 3 %, 12 here).",
        ),
        (
            {"seams": (replace(SEAM, note=of(0.04), notes=(0.04, 0.04, 0.01)),)},
            "The change: the first note 40 ± 1 ms late after 3 → 4, 2 times of 3 (limit 28).",
        ),
        (
            {"seams": (replace(SEAM, kind="inside", name="6 → 5", note=of(-0.04), notes=(-0.04,)),)},
            "The change: the first note 40 ± 1 ms early after 6 → 5, heard once (limit 28).",
        ),
        (
            {"places": (replace(PLACE, reason="where the thumb goes under"),)},
            "Bar 2, beat 3, &: 110 ± 4 ms late, 4 times of 4, where the thumb goes under (limit 20).",
        ),
        (
            {"places": (replace(PLACE, offset=of(-0.03), each=(-0.03, -0.03, -0.01)),)},
            "Bar 2, beat 3, &: 30 ± 1 ms early, 2 times of 3 (limit 20).",
        ),
        ({"furthest": FURTHEST}, "100 ± 5 ms behind the click at bar 3, beat 1 of pass 2 (limit 45)."),
        (
            {"furthest": replace(FURTHEST, offset=of(-0.1), is_known=False)},
            "100 ± 1 ms ahead of where it began at bar 3, beat 1 of pass 2 (limit 45).",
        ),
        (
            {"lost": (replace(lost("back", 4.0)[0], place="bar 2, beat 1"),)},
            "Went back to bar 2, beat 1 of pass 3, and played 4 beats once more.",
        ),
        ({"lost": lost("late", 1.0)}, "A beat lost at pass 3: what follows is late by as much."),
        ({"lost": lost("early", 2.05)}, "2 beats won at pass 3: what follows is early by as much."),
        ({"lost": lost("silent", 1.25)}, "1.25 beats left out at pass 3."),
        ({"lost": lost("group", 0.25)}, "A group stood off by 0.25 beats at pass 3, and came back."),
    ],
)
def test_what_alone_is_wrong_is_what_is_told(wrong: dict[str, Any], says: str) -> None:
    assert states(replace(WELL, **wrong), "outside") == [says]
    assert states(replace(WELL, **wrong), "near") == []


def test_a_swing_at_its_limit_is_too_near_to_call_and_crowding_is_told_beside_it() -> None:
    near = replace(WELL, legs=(replace(swung(1.62), crowding=of(0.4, 0.05)),))
    assert [one.split(",")[0] for one in states(near, "near")] == ["Swung"]
    assert [one.split(":")[0] for one in states(near, "outside")] == ["Crowded"]
    plain = replace(WELL, legs=(replace(swung(2.2), crowding=of(0.4, 0.05)),))
    assert [one.split(",")[0] for one in states(plain, "outside")] == ["Swung"]


def test_where_slots_stand_off_by_themselves_it_is_no_swing() -> None:
    limit = 0.12 * GAP
    within, beyond = (
        states(replace(WELL, legs=(swung(2.0, 1, more),)), "outside") for more in (0.9 * limit, limit * 1.1)
    )
    assert [one.split(",")[0] for one in within] == ["Swung"]
    assert all("each time" in one for one in beyond)
    # Short before long is no swing that anybody asks for.
    assert all("each time" in one for one in states(replace(WELL, legs=(swung(0.5),)), "outside"))


def test_where_nothing_is_wrong_nothing_is_told() -> None:
    assert states(WELL, "outside") == states(WELL, "near") == []


@pytest.mark.parametrize(("apart", "symbol"), [(0.03, "L"), (-0.03, "R"), (0.0, "L")])
def test_the_hand_that_comes_after_is_the_one_to_work_on(apart: float, symbol: str) -> None:
    figures = replace(WELL, together=TogetherFigures(of(apart), of(0.005), GAP))
    (found,) = (one.fault for one in check_all(figures, Limits()) if one.fault.kind == "together")
    assert found.symbol == symbol


@pytest.mark.parametrize(
    ("articulation", "sounding", "says"),
    [
        # Half of its length is asked: 60 % is the limit.
        (0.5, of(0.65, 0.01), ["Smeared: notes sound for 65 ± 1 % of their length (limit 60 %)."]),
        (0.5, of(0.60, 0.001), []),
        (0.5, of(0.62, 0.05), []),
        (1.0, of(1.3, 0.01), ["Smeared: notes sound for 130 ± 1 % of their length (limit 120 %)."]),
        (1.0, of(1.15, 0.01), []),
    ],
)
def test_notes_are_smeared_that_sound_into_the_next(articulation: float, sounding: Interval, says: list[str]) -> None:
    figures = replace(WELL, articulation=sounding)
    assert states(figures, "outside", articulation=articulation) == says
    # What is struck rings on by itself, but where it is to be short.
    assert states(figures, "outside", articulation=articulation, rings=True) == (says if articulation < 1 else [])


def test_a_note_that_is_held_again_and_again_is_told_by_its_place() -> None:
    held = HeldFigures(5, "bar 2, beat 1, &", of(1.4, 0.02), 4, 4)
    figures = replace(WELL, articulation=of(1.0, 0.01), held=(held,))
    told = ["Bar 2, beat 1, &: sounds for 140 % of its length, 4 times of 4 (limit 120 %)."]
    assert states(figures, "outside") == told
    assert states(replace(figures, articulation=of(1.4, 0.01)), "outside") == [
        "Smeared: notes sound for 140 ± 1 % of their length (limit 120 %)."
    ]


@pytest.mark.parametrize(
    ("slips", "errs", "state"),
    [
        # Of 400 notes 12 are clean and 14 shaky; a source that loses one in twenty may have lost twenty more.
        (12, 0.0, "inside"),
        (13, 0.0, "near"),
        (14, 0.0, "outside"),
        (12, 0.05, "inside"),
        (13, 0.05, "near"),
        (33, 0.05, "near"),
        (34, 0.05, "outside"),
    ],
)
def test_what_a_source_itself_loses_makes_no_take_shaky(slips: int, errs: float, state: str) -> None:
    figures = replace(WELL, matched=400 - slips, missed=slips)
    (found,) = (one for one in check_all(figures, Limits(), errs=errs) if one.fault.kind == "slips")
    assert found.state == state


@pytest.mark.parametrize(("missed", "state"), [(12, "inside"), (13, "near")])
def test_slips_of_earlier_takes_are_not_mixed_in(missed: int, state: str) -> None:
    earlier = [replace(WELL, matched=300, missed=100)]
    checked = check_all(replace(WELL, matched=400 - missed, missed=missed), Limits(), earlier)
    assert [one.state for one in checked if one.fault.kind == "slips"] == [state]


@pytest.mark.parametrize(
    ("offset", "is_change", "count"),
    # 2½ times 10 ms beside changes, 2½ times 20 ms after them, on either side.
    [(0.0249, False, 0), (0.0251, False, 1), (-0.0251, False, 1), (0.049, True, 0), (-0.051, True, 1)],
)
def test_a_note_is_misplaced_two_and_a_half_limits_from_its_place(offset: float, is_change: bool, count: int) -> None:
    figures = replace(WELL, strays=(replace(STRAY, offset=offset, is_change=is_change),))
    assert misplaced(figures, Limits()) == count


def test_what_is_less_sure_than_its_whole_limit_is_no_figure() -> None:
    unsure = replace(WELL, with_click=of(0.004, 0.026), furthest=replace(FURTHEST, offset=of(0.02, 0.05)))
    assert states(unsure, "near") == []
    assert "click" not in {one.fault.kind for one in check_all(unsure, Limits())}
    assert states(replace(WELL, with_click=of(0.006, 0.025)), "near") != []
    # Half of the limit of a tempo has to be known, so that a few notes are not held to it.
    assert states(replace(WELL, tempo_percent=of(0.7, 0.51)), "near") == []
    assert states(replace(WELL, tempo_percent=of(0.7, 0.49)), "near") != []
    # The evenness is what a take is about.
    assert states(replace(WELL, legs=(replace(LEG, spread=of(0.005, 0.011)),)), "near") != []


def test_while_the_click_is_silent_the_tempo_may_lead_farther_from_it() -> None:
    assert furthest_limit(FURTHEST, Limits()) == pytest.approx(0.045)
    assert furthest_limit(replace(FURTHEST, silence=8.0), Limits()) == pytest.approx(0.045 + 0.08)
    assert states(replace(WELL, furthest=replace(FURTHEST, silence=8.0)), "inside") != []
    # Everything after a lost beat is that far away: it is told once.
    assert len(states(replace(WELL, furthest=FURTHEST, lost=lost("late", 1.0)), "outside")) == 1


def test_a_division_of_few_notes_goes_with_the_evenness_of_all() -> None:
    few = replace(LEG, spread=Interval(0.008, 0.005, 15))
    assert states(replace(WELL, legs=(LEG, few)), "near") == []
    assert states(replace(WELL, legs=(LEG, replace(few, spread=Interval(0.008, 0.005, 16)))), "near") != []
    assert states(replace(WELL, spread=of(0.011, 0.002), legs=(LEG, few)), "near") != []


@pytest.mark.parametrize(
    ("wrong", "near"),
    [
        # 1 ms at 95 % is 0.84 at 90 %: what lies nearer than that to a limit is too near.
        ({"legs": (replace(LEG, spread=of(0.0091)),)}, False),
        ({"legs": (replace(LEG, spread=of(0.0092)),)}, True),
        ({"with_click": of(-0.0241)}, False),
        ({"with_click": of(-0.0242)}, True),
        ({"tempo_percent": of(-0.95, 0.05)}, False),
        ({"tempo_percent": of(-0.96, 0.05)}, True),
        ({"accents": replace(ACCENTS, over_plain=of(4.2, 0.2))}, False),
        ({"accents": replace(ACCENTS, over_plain=of(4.1, 0.2))}, True),
        ({"together": TogetherFigures(of(0.0191), of(0.005), GAP)}, False),
        ({"together": TogetherFigures(of(0.0192), of(0.005), GAP)}, True),
    ],
)
def test_what_lies_about_its_limit_is_too_near(wrong: dict[str, Any], near: bool) -> None:
    assert len(states(replace(WELL, **wrong), "near")) == near
    assert states(replace(WELL, **wrong), "outside") == []


@pytest.mark.parametrize(
    ("wrong", "is_told"),
    [
        # Fewer landings than three say nothing, and fewer notes of a division than eight.
        ({"landings": (LandingFigures("hits", GAP, of(0.03), 2),)}, False),
        ({"landings": (LandingFigures("hits", GAP, of(0.03), 3),)}, True),
        ({"legs": (replace(LEG, spread=Interval(0.02, 0.001, 7)),)}, False),
        ({"legs": (replace(LEG, spread=Interval(0.02, 0.001, 8)),)}, True),
        # Six of forty accents are the share that is let through.
        ({"accents": replace(ACCENTS, misplaced=6)}, False),
        ({"accents": replace(ACCENTS, misplaced=1, due=4)}, False),
        ({"accents": replace(ACCENTS, misplaced=2, due=4)}, True),
        # Both hands as uneven: it is no hand's own fault.
        ({"hands": tuple(replace(one, spread=of(0.015)) for one in WELL.hands)}, False),
        # Three quarters of its spread is less uneven; a little more is as uneven.
        ({"hands": (replace(HAND, spread=of(0.0149)), replace(HAND, symbol="L", spread=of(0.02)))}, True),
        ({"hands": (replace(HAND, spread=of(0.0151)), replace(HAND, symbol="L", spread=of(0.02)))}, False),
        # A change of accent or chord is no change of division: it is told, and not judged.
        ({"seams": (replace(SEAM, kind="accent", first=of(0.05)),)}, False),
        ({"legs": (replace(LEG, crowding=of(0.29, 0.05)),)}, False),
        ({"legs": (replace(LEG, crowding=of(0.30, 0.05)),)}, True),
    ],
)
def test_what_says_too_little_is_not_told(wrong: dict[str, Any], is_told: bool) -> None:
    assert bool(states(replace(WELL, **wrong), "outside")) is is_told


@pytest.mark.parametrize(
    ("fault", "turns", "passes"),
    [
        # A half-width of 8.4 ms by 90 % has to fit into 4: 4.4 times as many notes.
        (Fault("spread", "4", 0.006, 0.010, 0.010), 2, 9),
        # Where it fits already one pass more is asked for, and of slips as many again.
        (Fault("spread", "4", 0.002, 0.004, 0.010), 2, 3),
        (Fault("slips", "", 0.04, 0.0, 0.03, "notes", times=4, of=100), 3, 6),
        # On either side of the limit; on it no number of passes settles it.
        (Fault("click", "", -0.014, 0.010, 0.010), 2, 9),
        (Fault("spread", "4", 0.010, 0.010, 0.010), 2, 26),
    ],
)
def test_how_many_passes_would_settle_what_is_too_near(fault: Fault, turns: int, passes: int) -> None:
    assert passes_to_settle([fault], turns) == passes
