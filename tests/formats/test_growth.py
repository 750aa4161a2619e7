"""Text from outside is read in a time that grows as the text does, whatever it repeats: by ratios within one run."""

import gc
from collections.abc import Callable
from contextlib import suppress
from datetime import UTC, date
from time import process_time

import pytest

from ripresa.core.errors import RipresaError
from ripresa.formats.calendar_in import read_lessons
from ripresa.formats.drill_file import read_drill
from ripresa.formats.log_csv_in import read_log
from ripresa.formats.midi_in import read_midi
from ripresa.formats.musicxml_in import read_musicxml
from ripresa.formats.results_file import read_results
from ripresa.formats.shared_file import read_shared

_LESSON = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART:20260105T150000Z\r\n"
_END = "\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"


def lessons(text: str) -> object:
    return read_lessons(text.encode(), date(2026, 1, 1), date(2027, 1, 1), UTC)


def score(text: str) -> object:
    part = f'<part-list/><part id="P1"><measure number="1">{text}</measure></part>'
    return read_musicxml(f"<score-partwise>{part}</score-partwise>".encode())


READERS: dict[str, Callable[[str], object]] = {
    "results": read_results,
    "results in a message": lambda text: read_results(f'> Hello {text} {{"format": "ripresa.results/1"}}'),
    "drill": read_drill,
    "words of a drill": lambda text: read_drill(f'{{"material": {{"kind": "line", "text": "{text}"}}}}'),
    "meter of a drill": lambda text: read_drill(f'{{"meter": "4/4{text}"}}'),
    "shared drills": read_shared,
    "log": lambda text: read_log(f"played_at,bpm,mark\n{text}".encode()),
    "first line of a log": lambda text: read_log(text.encode()),
    "calendar": lessons,
    "name of a lesson": lambda text: lessons(f"{_LESSON}SUMMARY:{text}{_END}"),
    "rule of a lesson": lambda text: lessons(f"{_LESSON}RRULE:FREQ=WEEKLY;BYDAY={text}{_END}"),
    "days without a lesson": lambda text: lessons(f"{_LESSON}EXDATE:{text}{_END}"),
    "score": score,
    "MIDI": lambda text: read_midi(
        b"MThd\0\0\0\6\0\1\0\1\1\xe0MTrk" + len(text).to_bytes(4, "big") + text.encode("latin-1")
    ),
}
REPEATED = ("{", "[", '"', "'", "\\", " ", "1", ",", ";", "(", "> ", "\n", " +1/8", "1 2 ", "<", '{"a":', '"a":1,')
#: Signs of the short text, and how often as long the long one is.
_SHORT, _TIMES = 16_000, 40
#: How much longer than so many times as long the long one may take, and what is told apart from nothing, in seconds.
_LEEWAY, _NOTHING = 8, 0.002


@pytest.mark.parametrize("name", READERS)
def test_a_text_forty_times_as_long_takes_about_forty_times_as_long(name: str) -> None:
    for sign in REPEATED:
        short, long = (_seconds(READERS[name], sign, size) for size in (_SHORT, _TIMES * _SHORT))
        assert long < _LEEWAY * _TIMES * max(short, _NOTHING), sign


def _seconds(read: Callable[[str], object], sign: str, size: int) -> float:
    text = (sign * (size // len(sign) + 1))[:size]
    gc.collect()
    begun = process_time()
    with suppress(RipresaError):
        read(text)
    return process_time() - begun
