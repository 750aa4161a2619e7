"""Just inside and just outside: what still belongs to a take, what it is refused for, and what is masked by a click."""

import numpy as np
import pytest

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.drill.second import Contrary, SecondHand
from ripresa.core.exact import Fraction as F
from ripresa.core.listening import Onset
from ripresa.core.listening.bleed import without_clicks
from ripresa.core.reading import Reading, read
from ripresa.core.rhythm.swing import Swing
from ripresa.core.takes import HeardNote, Judged, Limits, due_notes, judge
from ripresa.core.takes.touch import _misplaced
from tests.strategies import legs

KNOWN = (0.0, 0.002)


def plain(division: int, beats: int = 16, **more: object) -> Reading:
    return read(Drill(material=OneNote(beats=beats), legs=legs(division), accents=NoAccents(), **more))  # type: ignore[arg-type]


def of(reading: Reading, moments: np.ndarray, end: float = 32.0) -> Judged:
    due = due_notes(reading, F(60), 0.0, end)
    return judge(due, [HeardNote(float(at)) for at in moments], Limits(), "midi", KNOWN)


@pytest.mark.parametrize(
    ("due", "played", "named"), [(2, 3, "threes better than the twos"), (4, 3, "threes"), (3, 2, "")]
)
def test_another_division_is_named_from_twos_on(due: int, played: int, named: str) -> None:
    found = of(plain(due), np.arange(0, 32, 1 / played)).verdict
    assert found.mark == "none"
    if named:
        assert found.refused == "division"
        assert f"This fits {named}" in found.reasons[0]
        assert found.offers[0].division == played


def test_swung_notes_that_are_played_as_they_are_due_are_no_other_division() -> None:
    swung = plain(2, swing=Swing(F(2)))
    moments = due_notes(swung, F(60), 0.0, 32.0).at
    assert np.allclose(np.diff(moments)[:2], [2 / 3, 1 / 3])
    found = of(swung, moments).verdict
    assert (found.refused, found.mark) == ("", "clean")


def test_a_note_after_the_end_or_before_the_beginning_is_nobodys_extra() -> None:
    reading = plain(4)
    due = due_notes(reading, F(60), 4.0, 20.0)
    for beside, extra in ((3.8, 0), (3.9, 1), (19.85, 1), (19.95, 0), (20.1, 0)):
        heard = sorted([*due.at, beside])
        found = judge(due, [HeardNote(float(at)) for at in heard], Limits(), "midi", KNOWN)
        assert len(found.match.extra) == extra, beside


def test_too_few_of_a_short_drill_are_too_few_whatever_else_was_heard() -> None:
    reading = plain(1, beats=12)
    beside = of(reading, np.array([0.0, 1.0, *np.linspace(2.4, 2.6, 14)]), 12.0).verdict
    assert beside.mark == "none"
    assert beside.refused == "few"
    assert "too few to judge" in beside.reasons[0]


@pytest.mark.parametrize(
    ("levels", "count"),
    [
        # The accent was soft, and the plain note before it, or after it, as loud as an accent.
        ([("accent", -20), ("plain", -6), ("plain", -20), ("plain", -20), ("accent", -6), ("plain", -20)], 1),
        ([("plain", -6), ("accent", -20), ("plain", -20), ("plain", -20), ("accent", -6), ("plain", -20)], 1),
        # It was soft, and so were those beside it; or they were as loud, and due to be.
        ([("plain", -20), ("accent", -20), ("plain", -20), ("plain", -6), ("plain", -20), ("accent", -6)], 0),
        ([("accent", -6), ("accent", -20), ("plain", -20), ("plain", -20), ("plain", -20), ("accent", -6)], 0),
        # All of one level: nothing stands out, and nothing is misplaced.
        ([("accent", -10), ("plain", -10), ("plain", -10), ("accent", -10.5)], 0),
    ],
)
def test_an_accent_is_misplaced_where_the_note_beside_it_has_it(levels: list[tuple[str, float]], count: int) -> None:
    assert _misplaced(levels) == count


def test_a_beat_that_is_lost_where_two_hands_are_tapped_as_one_is_told_in_its_turn() -> None:
    reading = read(
        Drill(material=ScaleRun(octaves=1), legs=legs(3), second=SecondHand(Contrary(), legs(2)), instrument="piano")
    )
    due = due_notes(reading, F(60), 0.0, 4 * float(reading.loop_beats))
    # From the second of two in the left hand on, and from a beat of both; a turn later comes later, whosever it is.
    gone = ((2 * 8 + 3.4, 2 * 8 + 4.9), (3 * 8 + 1.9, 3 * 8 + 3.1))
    kept = [at for at in due.at.tolist() if not any(first < at < last for first, last in gone)]
    found = judge(due, [HeardNote(at) for at in kept], Limits(), "taps", KNOWN)
    assert reading.loop_beats == 8
    assert found.figures
    assert [(one.kind, one.turn, reading.every[one.event].hand) for one in found.figures.lost] == [
        ("silent", 2, "L"),
        ("silent", 3, "R"),
    ]


CLICKS = [0.0, 1.0, 2.0, 3.0]


def test_two_clicks_that_come_in_alone_are_known_and_taken_out() -> None:
    onsets = [Onset(0.05, -30), Onset(1.05, -30), Onset(2.05, -31), Onset(2.5, -12), Onset(3.05, -20)]
    found = without_clicks(onsets, CLICKS, alone=2)
    assert [one.at for one in found.onsets] == [2.5, 3.05]
    assert (found.late, found.level, found.hidden) == (pytest.approx(0.05), -30, (2,))
    assert without_clicks(onsets, CLICKS, alone=1).onsets == tuple(onsets)


def test_a_click_is_not_known_where_somebody_plays_before_the_first_note() -> None:
    busy = [Onset(0.05 + number / 4, -30) for number in range(8)]
    assert without_clicks(busy, CLICKS, alone=2).late is None
    assert without_clicks([Onset(0.05, -30), Onset(1.2, -30)], CLICKS, alone=2).late is None
