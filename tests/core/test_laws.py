"""The laws: whatever is told of a drill is found again in its events.

Each is checked here by other means than the reports use: by walking over the events, by laying a longer drill, by
counting backwards. Every drill of the corpus.
"""

from dataclasses import asdict, replace
from itertools import groupby, pairwise
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings

from ripresa.core.drill import Drill, Enters, Hits, Reduce
from ripresa.core.drill.accents import EveryNth, Walk
from ripresa.core.drill.hands import SLUR, Articulated, ByOrder
from ripresa.core.drill.material import Line, OneNote, own_rhythm
from ripresa.core.drill.second import SecondHand
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction as F
from ripresa.core.playing import Before, score, seams
from ripresa.core.reading import Reading, read, unreduced
from ripresa.core.reports import Groups, LeadHome, Sums, WalkHome, sums
from ripresa.formats.sums_json import sums_file
from tests.materials import MATERIALS
from tests.strategies import IS_SEARCH, drill_parts, drills_of

#: Beats that are laid to look for what comes home after the leg; a home that is further off is not looked for.
FAR = 64
always = settings(derandomize=True, deadline=None, suppress_health_check=list(HealthCheck))


@pytest.mark.parametrize("kind", MATERIALS)
def test_what_is_told_is_found_again_in_the_events(kind: str) -> None:
    @settings(always, max_examples=200 if IS_SEARCH else 40)
    @given(drills_of(kind))
    def of_this_kind(drill: Drill) -> None:
        found_again(drill)

    of_this_kind()


def found_again(drill: Drill) -> None:
    reading = read(drill)
    whole = unreduced(reading)
    found = sums(reading, F(60))
    tiles(reading)
    speeds(reading, found)
    for group in found.groups:
        starts_are_accents(whole, group)
        homes(whole, group)
    for lead in found.leads:
        comes_round(whole, lead)
    for walk in found.walks:
        walks(whole, walk)
    counted_backwards(reading)
    told_once(reading, found)


def tiles(reading: Reading) -> None:
    """Events follow each other without gap or overlap, in bars and beats that add up, and end on a bar line."""
    at, bar, beat = F(0), 1, 1
    begun, begins = 1, F(0)
    for event in reading.events:
        assert event.onset == at
        assert (event.bar, event.beat) >= (bar, beat)
        lengths = reading.meter.beats_of(event.bar)
        begins += sum((reading.meter.bar(number).length for number in range(begun, event.bar)), F(0))
        begun = event.bar
        assert begins + sum(lengths[: event.beat - 1], F(0)) <= at < begins + sum(lengths[: event.beat], F(0))
        at, bar, beat = at + event.length, event.bar, event.beat
    assert at == reading.beats == sum(leg.beats for leg in reading.legs)
    assert at == sum((reading.meter.bar(number).length for number in range(1, bar + 1)), F(0))


def speeds(reading: Reading, found: Sums) -> None:
    """The peak is the smallest gap of the loop, found by going round twice; a twin is as fast."""
    onsets = [event.onset for event in reading.notes]
    if not onsets:
        assert found.speeds.peak_nps == 0
        return
    around = [at + turn * reading.beats for turn in range(2) for at in onsets]
    assert found.speeds.peak_nps == 1 / min(after - before for before, after in pairwise(around))
    assert found.speeds.average_nps == len(onsets) / reading.beats
    assert all(division * bpm / 60 == found.speeds.peak_nps for division, bpm in found.twins)
    for row in found.legs:
        assert row.nps * row.gap_seconds == 1
        several = reading.drill.swing.ratio > 1 or len({one for bar in reading.meter.bars for one in bar.beats}) > 1
        assert min(row.gaps) == row.gap_seconds or reading.drill.swing.ratio > 1
        assert len(row.gaps) == 1 or several


def starts_are_accents(reading: Reading, group: Groups) -> None:
    """Where groups start inside a leg is where the reading accents."""
    leg = group.leg
    last = leg.start + (leg.pass_beats if isinstance(reading.drill.material, Line) else leg.beats)
    accented = [
        event.onset
        for event in reading.notes
        # What a material accents by itself is not a group's.
        if event.leg == leg.index and event.in_group == 1 and event.group is not None
    ]
    told = [start.at for start in group.starts if start.at < last]
    if group.restart == "leg" and not own_rhythm(reading.drill.material) and leg.plays_closing:
        # The closing tonic is played beyond the pass; it may begin a group of its own, as told.
        accented = [at for at in accented if at < leg.start + leg.pass_beats]
        told = [at for at in told if at < leg.start + leg.pass_beats]
    both = [at for at in accented if at in told or at <= (told[-1] if told else leg.start)]
    assert told[: len(both)] == both, (told, accented)


def longer(reading: Reading, index: int) -> Reading | None:
    """Return a reading in which the leg goes on for as long as can be laid; None where it is no plain division."""
    drill, leg = reading.drill, reading.legs[index]
    if leg.rhythm or index or ";" in drill.meter:
        return None
    one = replace(drill, material=OneNote(beats=FAR), legs=drill.legs[:1], seam="hold", reduce=Reduce())
    # What is left out, or stands on one place alone, does not go on.
    bare = replace(one, hits=Hits(), enters=Enters(), ornaments=())
    return read(replace(bare, hands=drill.hands, second=SecondHand(), way_in=()))


def homes(reading: Reading, group: Groups) -> None:
    """A group that is home starts a group, on a beat or on a bar line, and none before it does."""
    far = longer(reading, group.leg.index)
    accents = reading.drill.accents
    assert isinstance(accents, EveryNth)
    if far is None or not group.starts:
        return
    starts = [event for event in far.notes if event.in_group == 1]
    notes = {event.onset: number for number, event in enumerate(far.notes)}
    meter = far.meter
    for home, missing in ((group.beat_home, meter.to_beat), (group.bar_home, meter.to_bar_line)):
        found = next((event for event in starts[1:] if not missing(event.onset)), None)
        if found is None:
            assert home is None or home.notes >= len(far.notes)
            continue
        assert home is not None
        assert home.notes == notes[found.onset] - notes[starts[0].onset]
        assert home.beats == meter.beats_passed(found.onset) - meter.beats_passed(starts[0].onset)
    on_beats = [event.in_group for event in far.notes if not meter.to_beat(event.onset)]
    assert on_beats[: len(group.beats_hit)] == list(group.beats_hit)


def comes_round(reading: Reading, lead: LeadHome) -> None:
    """What starts the beats of a longer drill goes round with the beats that are told, and with no fewer."""
    far = longer(reading, lead.leg.index)
    hands = reading.drill.hands
    if far is None or lead.beats is None or lead.beats * 2 > FAR:
        return
    # What is slurred has no stroke of its own, and is told as it is typed.
    slurs = isinstance(hands, Articulated) or (isinstance(hands, ByOrder) and SLUR in hands.cycle)
    starts: list[str | None] = [None] * int(far.meter.beats_passed(far.legs[0].pass_beats))
    for event in far.notes:
        at = far.meter.beats_passed(event.onset)
        if at == int(at) < len(starts):
            starts[int(at)] = event.stroke or (SLUR if slurs else None)
    assert starts[: len(lead.starts)] == list(lead.starts)
    assert all(before == after for before, after in zip(starts, starts[lead.beats :], strict=False))
    for fewer in range(1, lead.beats):
        if lead.beats % fewer == 0:
            assert any(before != after for before, after in zip(starts, starts[fewer:], strict=False))


def walks(reading: Reading, walk: WalkHome) -> None:
    """A longer drill is accented after as many bars as told as it was at first, and its notes are as many."""
    far = longer(reading, walk.leg.index)
    accents = reading.drill.accents
    assert isinstance(accents, Walk)
    if far is None or far.meter.bar_start(2 * walk.bars + 2) > FAR or not far.meter.is_plain:
        return
    by_bar = [[event.accent for event in inside] for _, inside in groupby(far.notes, key=lambda event: event.bar)]
    # The first bar has no group before it whose last accent it could take; from the second on it goes round.
    assert by_bar[1 : walk.bars] == by_bar[walk.bars + 1 : 2 * walk.bars]
    assert sum(len(bar) for bar in by_bar[: walk.bars]) == walk.notes
    assert far.meter.bar_start(walk.bars + 1) == walk.beats


def counted_backwards(reading: Reading) -> None:
    """The count-in is the meter counted backwards from where it leads to; at the start its first bar alone is."""
    meter = reading.meter
    for window in (None, *seams(reading)):
        start = window.start if window else F(0)
        lead = score(reading, F(60), before=Before(count_bars=1, count_beats=2), window=window).lead
        at, (bar, beat, inside) = lead.beats, meter.place(start)
        assert inside == 0
        words = [onset for onset, _ in lead.words if onset < lead.beats]
        for onset in reversed(words):
            beat -= 1
            if beat < 1:
                bar -= 1 if start else 0
                beat = len(meter.beats_of(bar))
            at -= meter.beats_of(bar)[beat - 1]
            assert onset == at
        assert words[0] == 0


def told_once(reading: Reading, sums: Sums) -> None:
    """What the command prints agrees with itself."""
    found: dict[str, Any] = asdict(sums_file(reading, sums, F(60)))
    assert found["beats"] == found["seconds"]
    assert sum(leg["notes"] for leg in found["legs"]) == found["notes"] == len(reading.notes)
    assert [fit["leg"] for fit in found["fit"]] == [leg["leg"] for leg in found["legs"]]
    titles = [paragraph["title"] for paragraph in found["told"]]
    assert len(set(titles)) == len(titles), titles
    assert all(sentence.endswith((".", "…")) for paragraph in found["told"] for sentence in paragraph["sentences"])


@settings(always, max_examples=2000 if IS_SEARCH else 120)
@given(drill_parts)
def test_what_cannot_be_is_refused_with_a_sentence_and_a_field(parts: dict[str, Any]) -> None:
    refused: RipresaError | None = None
    try:
        read(Drill(**parts))
    except RipresaError as error:
        refused = error
    assert refused is None or (refused.field and refused.message.strip())
