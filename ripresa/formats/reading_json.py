"""A reading as plain JSON values, for pipes: what ``ripresa read`` prints."""

from dataclasses import dataclass
from typing import Any

from ripresa.core.climbs import Rung
from ripresa.core.exact import Fraction
from ripresa.core.grid import Event
from ripresa.core.reading import Reading
from ripresa.core.reports import sums, warnings
from ripresa.formats.wire import WireSchema, adapter

Number = int | float


def number(value: Fraction) -> int | float:
    """Return a number for JSON: whole ones as integers."""
    return int(value) if value.denominator == 1 else float(value)


def reading_values(reading: Reading, bpm: Fraction) -> dict[str, Any]:
    """Return all of a reading at a tempo: totals, legs and events; onsets and lengths as exact text."""
    found = sums(reading, bpm)
    return {
        "title": reading.drill.title,
        "bpm": number(bpm),
        "meter": reading.meter.name,
        "notes": found.notes,
        "beats": number(found.beats),
        "bars": number(found.bars),
        "seconds": number(found.seconds),
        "peak_nps": number(found.speeds.peak_nps),
        "average_nps": number(found.speeds.average_nps),
        "legs": [
            {
                "division": number(row.leg.division),
                "divisions": [str(division) for division in row.leg.divisions],
                "start": str(row.leg.start),
                "notes": row.leg.notes,
                "beats": number(row.beats),
                "bars": number(row.bars),
                "seconds": number(row.seconds),
                "nps": number(row.nps),
                "gap_ms": number(row.gap_seconds * 1000),
                "fit": {
                    "notes": row.fit.notes,
                    "beats": str(row.fit.beats),
                    "last_note": row.fit.last_note,
                    "closing": row.fit.closing,
                    "missing_beats": str(row.fit.missing_beats),
                },
            }
            for row in found.legs
        ],
        "events": [_event(event) for event in reading.events],
        "other": [_event(event) for event in reading.other],
        "second": [str(onset) for onset in reading.second],
        "body": [{"onset": str(onset), "word": word} for onset, word in reading.body],
        "dial": found.dial.sentence,
        "warnings": list(warnings(reading)),
    }


def _event(event: Event) -> dict[str, Any]:
    """Return an event as plain values; ``layer`` is its hand where two play, ``strings`` string and fret of each."""
    how = event.how
    return {
        "onset": str(event.onset),
        "length": str(event.length),
        "leg": event.leg + 1,
        "bar": event.bar,
        "beat": event.beat,
        "slot": event.slot,
        "division": str(event.division),
        "count": event.count,
        "pitch": event.pitch.name if event.pitch else None,
        "chord": event.chord.symbol if event.chord else None,
        "stroke": event.stroke,
        "touch": event.touch.words if event.touch else None,
        "finger": event.touch.finger if event.touch else None,
        "string": event.touch.string if event.touch else None,
        "fret": event.touch.fret if event.touch else None,
        "strings": [{"string": one.string, "fret": one.fret, "finger": one.finger} for one in how.plucks],
        "dead": how.dead,
        "ornament": how.ornament,
        "slurred": event.slurred,
        "accent": event.accent,
        "kind": event.kind,
        "group": event.group,
        "in_group": event.in_group,
        "layer": event.layer,
    }


@dataclass(frozen=True, slots=True)
class RungValues:
    """A rung: its number from 1, notes per beat, notes a second, milliseconds from note to note.

    ``what`` is played of the drill, or got right, where that is not all of it.
    """

    rung: int
    bpm: Number
    division: Number
    nps: Number
    gap_ms: Number
    what: str


def rung_values(rungs: tuple[Rung, ...]) -> Any:
    """Return rungs as plain values."""
    return _RUNGS.dump_python(
        [
            RungValues(
                rung=rung.number,
                bpm=number(rung.bpm),
                division=number(rung.division),
                nps=number(rung.nps),
                gap_ms=number(rung.gap_seconds * 1000),
                what=rung.words,
            )
            for rung in rungs
        ],
        mode="json",
    )


def climb_schema() -> dict[str, Any]:
    """Return the JSON Schema of printed rungs."""
    return _RUNGS.json_schema(schema_generator=WireSchema)


_RUNGS = adapter(list[RungValues])
