"""The word of a take in its three parts, and what divisions and changes are called."""

import pytest

from ripresa.core.exact import Fraction, parse_exact
from ripresa.core.reports import gear_words
from ripresa.core.rhythm import division_name, gear_change
from ripresa.core.takes import fault_heading, word_of
from ripresa.core.takes.fault import Fault, FaultKind

EVEN = "Even: spread 6 ± 1 ms (limit 16)."
CHANGE = "Even, but not at the change: 38 ± 9 ms late after 3 → 4, 2 times of 2 (limit 31)."


def fault(kind: FaultKind, value: float = 0.04, where: str = "", **more: object) -> Fault:
    return Fault(kind, where, value, 0.005, 0.03, **more)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("found", "heading"),
    [
        (fault("seam", where="3 → 4"), "Late at 3 → 4"),
        (fault("seam", -0.04, "5 → 6"), "Early at 5 → 6"),
        (fault("place", where="bar 1, beat 1, a"), "Late at bar 1, beat 1, a"),
        (fault("habit", -0.02, "e", division="4"), "“e” comes early"),
        (fault("habit", 0.02, "&", symbol="L"), "“&” comes late in the left hand"),
        (fault("crowding", 20, division="4"), "Crowded at 4 a beat"),
        (fault("swing", 2.0), "Swung where straight is asked"),
        (fault("swing", 1.0, "2 to 1"), "Straight where swing is asked"),
        (fault("tempo", 2.0), "Runs ahead"),
        (fault("tempo", -2.0), "Falls behind"),
        (fault("click"), "Behind the click"),
        (fault("click", -0.04), "Ahead of the click"),
        (fault("furthest", 0.09, "click"), "Goes behind the click"),
        (fault("furthest", -0.09, "own"), "Goes ahead of where it began"),
        (fault("spread", where="4, left hand"), "Uneven at 4 a beat, left hand"),
        (fault("lost_beat", 1.0, "silent"), "Something was left out"),
        (fault("lost_beat", 1.0, "late"), "A beat was lost or won"),
        (fault("group"), "A group stood off"),
        (fault("back"), "Stopped and went back"),
        (fault("hand", symbol="R"), "Right hand comes late"),
        (fault("hand", where="spread", symbol="U"), "U is uneven"),
        (fault("accent"), "The accents are flat"),
        (fault("misplaced"), "Accents on the note beside theirs"),
        (fault("smear"), "Notes run into each other"),
        (fault("landing", -0.04, "hits"), "The hits come early"),
        (fault("landing", 3.0, "fills", unit="%"), "Inside the fills faster"),
        (fault("slips"), "Too many slips"),
        (fault("together", -0.03), "The hands are apart, the right behind"),
    ],
)
def test_each_fault_is_a_heading_of_a_few_words(found: Fault, heading: str) -> None:
    assert fault_heading(found) == heading


def test_a_word_begins_with_the_fault_and_what_was_well_stands_apart() -> None:
    word = word_of("shaky", (fault("seam", where="3 → 4"),), (CHANGE, EVEN, "No slip in 232 notes (limit 3 %)."))
    assert word.heading == "Even, but late at the change 3 → 4"
    # What the heading says is not said again.
    assert word.says == ("38 ± 9 ms late after 3 → 4, 2 times of 2 (limit 31).",)
    assert word.well == (EVEN, "No slip in 232 notes (limit 3 %).")


def test_three_faults_at_most_are_told_before_what_was_well() -> None:
    faults = (fault("spread", where="4"), fault("slips"), fault("click"), fault("tempo"))
    word = word_of("shaky", faults, ("Uneven.", "Slips.", "Beside the click.", "On tempo."))
    assert (word.heading, word.says, word.well) == (
        "Uneven at 4 a beat",
        ("Uneven.", "Slips.", "Beside the click."),
        ("On tempo.",),
    )


def test_clean_near_and_none_have_their_own_headings() -> None:
    assert word_of("clean", (), (EVEN,)).well == (EVEN,)
    assert word_of("clean", (), (EVEN,)).heading == "Clean"
    near = word_of("near", (fault("spread", where="4"),), ("Too near to call: uneven.", "A take of 5 passes.", EVEN))
    assert (near.heading, near.says[1], near.well) == ("Too near to call", "A take of 5 passes.", (EVEN,))
    none = word_of("none", (), ("Only 3 notes were heard.",))
    assert (none.heading, none.says, none.well) == ("No verdict", ("Only 3 notes were heard.",), ())


def test_an_ear_that_overrules_leaves_what_was_measured_as_it_was_told() -> None:
    word = word_of("clean", (fault("slips"),), ("Marked clean by ear, by the teacher.", "Slips.", EVEN))
    assert (word.heading, word.says, word.well) == (
        "Clean",
        ("Marked clean by ear, by the teacher.", "Slips."),
        (EVEN,),
    )


@pytest.mark.parametrize(
    ("before", "after", "words"),
    [
        ("2", "3", "half as fast again (+50 %)"),
        ("3", "4", "a third faster (+33 %)"),
        ("4", "5", "a quarter faster (+25 %)"),
        ("5", "6", "a fifth faster (+20 %)"),
        ("2", "4", "twice as fast (+100 %)"),
        ("2", "6", "3 times as fast (+200 %)"),
        ("4", "2", "half as fast (−50 %)"),
        ("6", "2", "a third as fast (−67 %)"),
        ("3", "2", "a third slower (−33 %)"),
        ("4", "3", "a quarter slower (−25 %)"),
        ("3", "5", "67 % faster"),
        ("5", "3", "40 % slower"),
        ("4", "4", "the same speed"),
    ],
)
def test_a_change_is_said_in_words(before: str, after: str, words: str) -> None:
    assert gear_words(gear_change(parse_exact(before), parse_exact(after), Fraction(84))) == words


@pytest.mark.parametrize(
    ("divisions", "counted", "name"),
    [
        (["1"], "1/4", "quarters"),
        (["1/2"], "1/4", "halves"),
        (["2"], "1/4", "eighths"),
        (["3"], "1/4", "triplets"),
        (["4"], "1/4", "sixteenths"),
        (["5"], "1/4", "fives"),
        (["6"], "1/4", "sixes"),
        (["8"], "1/4", "thirty-seconds"),
        # In 6/8 three a beat are eighths; two are duplets, four are no printed value.
        (["1"], "3/8", "dotted quarters"),
        (["2"], "3/8", "duplets"),
        (["3"], "3/8", "eighths"),
        (["4"], "3/8", "fours"),
        (["6"], "3/8", "sixteenths"),
        # Where an eighth is counted, and a half note.
        (["2"], "1/8", "sixteenths"),
        (["2"], "1/2", "quarters"),
        (["3"], "1/2", "triplets"),
        (["3/2"], "1/4", "3:2"),
        (["6", "5"], "1/4", "sixes and fives"),
        (["2", "2", "2", "4"], "1/4", "2+2+2+4 a beat"),
    ],
)
def test_divisions_are_called_by_the_notes_that_are_printed(divisions: list[str], counted: str, name: str) -> None:
    assert division_name(tuple(parse_exact(one) for one in divisions), parse_exact(counted)) == name
