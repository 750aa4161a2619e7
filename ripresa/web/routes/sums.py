"""The small calculations of the Sums drawer."""

from flask import Response
from pydantic import BaseModel

from ripresa.core.drill import DIVISIONS, Leg
from ripresa.core.drill.click import NamedClick
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import decimal, label, parse_amount, plural
from ripresa.core.reports import dial, drift_heard, landings, note_on_beat, realignment
from ripresa.core.rhythm import (
    bpm_for_speed,
    check_bpm,
    gap_seconds,
    inner_pulse,
    meter_named,
    setting,
    span_seconds,
    speed_nps,
)
from ripresa.web.answers import answer
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Count
from ripresa.web.shapes.sums import working

api = blueprint("sums")


class SumsQuery(BaseModel):
    """What the drawer holds, as typed."""

    bpm: str = "108"
    division: str = "4"
    nps: str = "8"
    size: Count = 5
    meter: str = "4/4"
    beats: str = "14"
    click: str = "two_and_four"


class TempoRow(BaseModel):
    """A division: the exact tempo for a speed, and the whole bpm with the speed that it gives."""

    division: str
    exact: str
    setting: str
    gives: str


class SumsShape(BaseModel):
    """The answers, in sentences and rows."""

    speed: str
    speed_working: str
    gap_ms: str
    tempi: list[TempoRow]
    pulse: str
    pulse_note: str
    dial: str
    drift: str
    groups: str
    group_starts: str
    beat_notes: str
    span: str


@api.get("/sums", responses={200: SumsShape})
def show_sums(query: SumsQuery) -> Response:
    """All small sums at once."""
    bpm = check_bpm(parse_amount(query.bpm))
    division = Leg(parse_amount(query.division)).division
    nps, beats = parse_amount(query.nps), parse_amount(query.beats)
    meter = meter_named(query.meter)
    if not 2 <= query.size <= 64:
        raise OutOfRange(f"A group has 2 to 64 notes, not {query.size}.", field="size")
    if not 0 < beats <= 10000:
        raise OutOfRange("A pass lasts more than 0 and up to 10000 beats.", field="beats")
    pulse = inner_pulse(bpm)
    home = realignment(query.size, division, meter)
    set_to = dial(NamedClick(plan=query.click).cycle(meter, (), meter.bar_length), meter, bpm)
    heard = drift_heard(set_to.gap_seconds, parse_amount("0.01")) if set_to.gap_seconds else None
    return answer(
        SumsShape(
            speed=f"{decimal(speed_nps(bpm, division), 1)} notes a second",
            speed_working=working(bpm, division) + ".",
            gap_ms=f"{decimal(gap_seconds(bpm, division) * 1000, 1)} ms between notes",
            tempi=[
                TempoRow(
                    division=label(one),
                    exact=decimal(bpm_for_speed(nps, one), 2),
                    setting=label(setting(bpm_for_speed(nps, one), "whole")),
                    gives=decimal(speed_nps(setting(bpm_for_speed(nps, one), "whole"), one), 2),
                )
                for one in DIVISIONS
                if one >= 2
            ],
            pulse=f"Count {_multiple(pulse)} inside: {label(pulse * bpm)} a minute.",
            pulse_note="Under 60 bpm is hard to hold and tends to run away." if bpm < 60 else "",
            dial=set_to.sentence,
            drift=(
                f"A click every {decimal(set_to.gap_seconds, 2)} s: 1 % off is heard as {decimal(heard * 1000, 0)} ms."
                if set_to.gap_seconds and heard
                else ""
            ),
            groups=(
                f"Home on a beat after {plural(home.beat_notes, 'note')} ({plural(home.beat_beats, 'beat')}), "
                f"on a bar line after {plural(home.bar_notes, 'note')} ({plural(home.bars, 'bar')}, "
                f"{plural(home.groups, 'group')})."
            ),
            group_starts=" ".join(
                f"{one.bar}:{one.beat}{'' if one.slot == 0 else one.count}"
                for one in landings(query.size, division, meter)
            ),
            beat_notes=(
                "The beats hit notes "
                + ", ".join(str(note_on_beat(beat, int(division), query.size)) for beat in range(query.size + 1))
                + " … of the group."
                if division >= 1
                else ""
            ),
            span=f"{plural(beats, 'beat')} at {label(bpm)} bpm last {decimal(span_seconds(beats, bpm), 2)} s.",
        )
    )


def _multiple(pulse: object) -> str:
    names = {"1/2": "every second beat", "1": "the beat", "2": "2 a beat", "3": "3 a beat", "4": "4 a beat"}
    return names[str(pulse)]
