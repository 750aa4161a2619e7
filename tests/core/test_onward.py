"""What comes again is moved: the same places as if each had been laid by itself."""

from dataclasses import replace
from itertools import islice

from hypothesis import given, settings
from hypothesis import strategies as st

from ripresa.core.drill import Drill
from ripresa.core.exact import Fraction as F
from ripresa.core.grid import Cursor, LegReading, Place, Slot, slot_numbers
from ripresa.core.reading import Reading, lay, onward, read, slots_on, worked_out
from tests.strategies import drills, leg_divisions


def laid(reading: Reading, leg: LegReading, count: int) -> list[Place]:
    """Return the first places of a leg as it goes on, each laid by the cursor."""
    cursor = Cursor(reading.meter, reading.drill.swing)
    cursor.go_to(leg.start)
    found: list[Place] = []
    numbers = slot_numbers(leg.divisions)
    while len(found) < count:
        if not leg.rhythm:
            found += cursor.lay(leg.index, Slot(*next(numbers)))
            continue
        start = cursor.at
        for slot in leg.rhythm:
            found += cursor.lay(leg.index, slot)
        left = max(F(0), leg.beats - (cursor.at - start))
        found += cursor.fill(leg.index, leg.rhythm[0].division, left, "rest")
    return found[:count]


@given(drills, st.data())
@settings(max_examples=120)
def test_a_leg_goes_on_as_if_each_slot_were_laid(drill: Drill, data: st.DataObject) -> None:
    reading = read(drill)
    leg = data.draw(st.sampled_from(reading.legs))
    assert list(islice(onward(reading, leg), 300)) == laid(reading, leg, 300)


@given(drills, st.lists(leg_divisions, min_size=1, max_size=2).map(tuple), st.integers(0, 200))
@settings(max_examples=120)
def test_any_slot_is_found_by_its_number(drill: Drill, divisions: tuple[F, ...], number: int) -> None:
    reading = read(drill)
    leg = reading.legs[-1]
    cursor = Cursor(reading.meter, reading.drill.swing)
    cursor.go_to(leg.start)
    slots = [cursor.lay(leg.index, Slot(*one))[0] for one in islice(slot_numbers(divisions), number + 1)]
    slot = slots_on(reading, leg, divisions)
    found = [slot(one) for one in range(number + 1)]
    assert [(one.onset, one.bar, one.beat) for one in found] == [(one.onset, one.bar, one.beat) for one in slots]


@given(drills)
@settings(max_examples=60)
def test_a_layout_has_the_legs_of_the_reading(drill: Drill) -> None:
    reading, layout = read(drill), lay(drill)
    assert [(one.start, one.beats, one.end) for one in layout.legs] == [
        (one.start, one.beats, one.end) for one in reading.legs
    ]
    assert (layout.meter, layout.beats, layout.swing) == (reading.meter, reading.beats, reading.swing)


@given(drills, st.integers(20, 300))
@settings(max_examples=40)
def test_what_is_remembered_is_what_is_worked_out_anew(drill: Drill, bpm: int) -> None:
    other = replace(drill, title="Another name", purpose="Another purpose", bpm=F(bpm), tags=("other",))
    assert read(other).events == read(drill).events == worked_out(other).events
    assert read(other).drill == other
    assert read(drill).drill == drill
