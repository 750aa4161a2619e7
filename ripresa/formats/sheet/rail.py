"""The rail on paper: a bar as on the screen, in black: count above, pegs where they sound, hands and clicks below.

One bar a row; every beat has the same width, so that divisions under one another share it. Nothing is told by colour:
an accent is long and has a head, a ghost is short and thin, a silence is an outline.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from html import escape
from itertools import groupby, pairwise

from ripresa.core.drill.material import Cells, own_rhythm
from ripresa.core.exact import Fraction, division_label, plural
from ripresa.core.grid import Event
from ripresa.core.playing import voice_row
from ripresa.core.reading import Reading

#: Points that a row is wide, that its label takes of it, and that are left free beside its pegs.
_WIDTH, _GUTTER, _MARGIN = 690.0, 84.0, 10.0
#: A row of large print is narrower before it fills the page, so that all of it is larger: by this, and as far as its
#: words stay this many points from one another.
_LARGE, _APART = 1.5, 20.0
_FONT = "Atkinson Hyperlegible Next"
_COUNT = 15.0
#: Rows that paper has room for; what goes on as before is not said again.
MOST_ROWS = 8
#: Bars that show one rhythm: who can play those can go on.
_MOST_OF_ONE = 4
#: Bars of cells in every combination: two cells over four beats are 16, three over three 27.
_MOST_OF_CELLS = 32
#: Points between two words below which they are set smaller.
_TIGHT = 15.0


@dataclass(frozen=True, slots=True)
class RailRow:
    """A bar of the rail: its picture (SVG), how tall it is beside its width, and its events in words."""

    picture: str
    height: float
    words: str


@dataclass(frozen=True, slots=True)
class _Heights:
    """Heights of pegs in points, and where the line stands under the count."""

    tall: float
    plain: float
    ghost: float
    line: float


#: Few rows are tall, many are low, so that they stay on one page.
_ROOMY, _LOW = _Heights(46.0, 26.0, 15.0, 71.0), _Heights(27.0, 16.0, 9.0, 51.0)
_MOST_ROOMY = 4


@dataclass(frozen=True, slots=True)
class _Bar:
    number: int
    leg: int
    start: Fraction
    length: Fraction
    beats: tuple[Fraction, ...]
    rows: tuple[tuple[Event, ...], ...]


def rail_rows(reading: Reading, *, large: bool = False) -> tuple[list[RailRow], str]:
    """Return the rows that show a drill: a bar of each leg, or of each rhythm; and what is not shown, in words.

    Args:
        large: For large print: up to half as large again.
    """
    different: dict[object, _Bar] = {}
    begun = -1
    several = len(reading.legs) > 1 and not own_rhythm(reading.drill.material)
    for bar in _bars(reading):
        # A leg of one division is known by its first bar; a rhythm of its own by each bar that is another one.
        if not several or bar.leg > begun:
            different.setdefault(_looks(bar, reading), bar)
        begun = bar.leg
    most = MOST_ROWS if several else _MOST_OF_ONE
    if isinstance(reading.drill.material, Cells):
        # Every combination is what such a sheet is for.
        most = _MOST_OF_CELLS
    shown = list(different.values())[:most]
    rows = len(shown) * (2 if reading.other else 1)
    heights = _ROOMY if rows <= _MOST_ROOMY else _LOW
    widest = max(bar.length for bar in shown)
    left = len(different) - len(shown)
    more = f"{plural(left, 'more bar')} of another rhythm not shown" if left else ""
    width = _width(shown, widest) if large else _WIDTH
    return [_row(bar, reading, widest, heights, width) for bar in shown], more


def _width(bars: Sequence[_Bar], widest: Fraction) -> float:
    """Return how wide rows of large print are."""
    onsets = (sorted({event.onset for event in row}) for bar in bars for row in bar.rows)
    closest = min((after - at for row in onsets for at, after in pairwise(row)), default=widest)
    return min(_WIDTH, max(_WIDTH / _LARGE, _GUTTER + _MARGIN + float(widest / closest) * _APART))


def _bars(reading: Reading) -> Iterator[_Bar]:
    """Yield the bars of a reading with the events of each row; a bar that holds two legs as two."""
    others = {key: list(inside) for key, inside in groupby(reading.other, key=lambda event: (event.bar, event.leg))}
    for (number, leg), inside in groupby(reading.events, key=lambda event: (event.bar, event.leg)):
        right = tuple(inside)
        bar = reading.meter.bar(number)
        rows = (right, tuple(others.get((number, leg), ()))) if reading.other else (right,)
        yield _Bar(number, leg, reading.meter.bar_start(number), bar.length, bar.beat_starts(), rows)


def _looks(bar: _Bar, reading: Reading) -> object:
    """Return what a reader sees of the rhythm of a bar: its pitches stand in the notation."""
    shown = tuple(
        (event.onset - bar.start, event.length, event.kind, event.accent, event.stroke, event.count, event.slurred)
        for row in bar.rows
        for event in row
    )
    clicks = tuple((at - bar.start, level) for at, level in _clicks(bar, reading))
    # Groups that go on from bar to bar are no reason to show every bar: their accents are.
    layers = tuple((name, tuple((at - bar.start, mark) for at, mark in marks)) for name, marks in _layers(bar, reading))
    return shown, clicks, bar.length, layers


def _clicks(bar: _Bar, reading: Reading) -> list[tuple[Fraction, str]]:
    end = bar.start + bar.length
    return [(at, level) for at, level in reading.click_cycle.within(end) if at >= bar.start]


def _layers(bar: _Bar, reading: Reading) -> Iterator[tuple[str, list[tuple[Fraction, str]]]]:
    """Yield the layers under the pegs: the hits, full and light, then foot, voice and body as they enter."""
    end = bar.start + bar.length
    hits = [(at, "□" if light else "■") for at, light in reading.hits]
    said = voice_row(reading, reading.drill.bpm).words
    rows = {"foot": ("foot", reading.foot), "count": ("voice", said), "movement": ("body", reading.body)}
    named = [rows[name] for name, _ in reading.drill.enters.order if name in rows]
    for name, marks in [("hits", hits), *named]:
        here = [(at, mark) for at, mark in marks if bar.start <= at < end]
        if here:
            yield name, here


def _row(bar: _Bar, reading: Reading, widest: Fraction, heights: _Heights, width: float) -> RailRow:
    beat = (width - _GUTTER - _MARGIN) / float(widest)

    def x(at: Fraction) -> float:
        return _GUTTER + 8 + float(at - bar.start) * beat

    two = len(bar.rows) > 1
    chords = any(event.chord for event in bar.rows[0])
    top = 14.0 if chords else 0.0
    has_hands = any(event.stroke for event in bar.rows[0])
    has_touch = any(event.touch for event in bar.rows[0])
    line = top + heights.line
    # The left hand's pegs hang under the line, its words under them.
    below = line + (heights.tall + 12 if two else 0)
    parts = list(_frame(bar, line, heights, x))
    parts += _label(bar, reading, line, heights)
    for row, events in enumerate(bar.rows):
        sign = 1 if row else -1
        for event, after in zip(events, [*events[1:], None], strict=True):
            parts += _peg(event, heights, x(event.onset), line, sign, x(event.onset + event.length))
            gap = x(after.onset) - x(event.onset) if after else _TIGHT * 2
            parts += _words(event, x(event.onset), top, below, gap, is_left=row > 0)
    y = below + 14.0
    if has_hands and not two:
        # In the air they are smaller than where they sound.
        parts += [
            _text(x(event.onset), y, event.stroke, 11 if event.kind == "note" else 8)
            for event in bar.rows[0]
            if event.stroke
        ]
        y += 13.0
    if has_touch and not two:
        parts += [_text(x(event.onset), y, event.touch.shown, 8.5) for event in bar.rows[0] if event.touch]
        y += 12.0
    for name, marks in _layers(bar, reading):
        parts.append(_text(0, y, name, 9.5, anchor="start"))
        parts += [_text(x(at), y, mark, 10) for at, mark in marks]
        y += 12.0
    for at, level in _clicks(bar, reading):
        parts.append(_diamond(x(at), y - 4, 4.6 if level == "strong" else 3.4))
    y += 6.0
    parts += _chords(bar.rows[0], x)
    picture = (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width:.0f} {y:.1f}" width="{width:.0f}" '
        f'height="{y:.1f}" font-family="{_FONT}">{"".join(parts)}</svg>'
    )
    return RailRow(picture, y, _in_words(bar))


def _frame(bar: _Bar, line: float, heights: _Heights, x: Callable[[Fraction], float]) -> Iterator[str]:
    """Yield the line, and where each beat begins on it."""
    yield f'<path d="M{_GUTTER} {line} H{x(bar.start + bar.length):.1f}" stroke="#000" stroke-width="1.6"/>'
    for start in bar.beats:
        at = x(bar.start + start) - 7
        yield f'<path d="M{at:.1f} {line - heights.tall - 4:.1f} V{line}" stroke="#777" stroke-width="0.7"/>'


def _label(bar: _Bar, reading: Reading, line: float, heights: _Heights) -> Iterator[str]:
    yield _text(0, line - heights.tall - 6, f"bar {bar.number}", 11, anchor="start")
    # A rhythm of its own is another one in each bar; a leg of divisions that take turns is named by all of them.
    here = dict.fromkeys(event.division for event in bar.rows[0] if event.kind == "note")
    found = here if own_rhythm(reading.drill.material) and here else reading.legs[bar.leg].divisions
    division = division_label(*found)
    size = heights.tall * 0.46 if len(division) < 4 else 11
    if heights is _LOW:
        yield _text(0, line - 8, division, size + 4, anchor="start", bold=True)
        yield _text(14 + 9 * len(division), line - 8, "a beat", 11, anchor="start")
        return
    yield _text(0, line - 24, division, size, anchor="start", bold=True)
    yield _text(0, line - 8, "a beat", 11, anchor="start")


def _peg(event: Event, heights: _Heights, x: float, line: float, sign: int, end: float) -> Iterator[str]:
    """Yield an event: a peg, an outline, or the bar of what is held."""
    tall = {"accent": heights.tall, "plain": heights.plain, "ghost": heights.ghost}[event.accent]
    if event.kind == "hold":
        y = line + sign * 5
        yield f'<path d="M{x - 7:.1f} {y:.1f} H{end - 9:.1f}" stroke="#000" stroke-width="2.2"/>'
        return
    if event.kind != "note":
        y = line - heights.plain if sign < 0 else line
        yield (
            f'<rect x="{x - 2.4:.1f}" y="{y:.1f}" width="4.8" height="{heights.plain}" fill="none" stroke="#555" '
            'stroke-width="0.8" stroke-dasharray="2 2"/>'
        )
        return
    wide = {"accent": 7.0, "plain": 5.0, "ghost": 2.2}[event.accent]
    y = line - tall if sign < 0 else line
    yield f'<rect x="{x - wide / 2:.1f}" y="{y:.1f}" width="{wide}" height="{tall}" fill="#000"/>'
    if event.accent == "accent":
        yield f'<circle cx="{x:.1f}" cy="{line + sign * tall:.1f}" r="6" fill="#000"/>'
    if event.slurred:
        yield f'<path d="M{x - 12:.1f} {line - 6:.1f} q 6 -6 12 0" fill="none" stroke="#000" stroke-width="1.1"/>'


def _words(event: Event, x: float, top: float, under: float, gap: float, *, is_left: bool) -> Iterator[str]:
    """Yield the count word over an event; the left hand's stands under it where it is another."""
    if event.kind == "hold" or not event.count:
        return
    size = 11.0 if gap >= _TIGHT else max(6.5, 11.0 * gap / _TIGHT)
    y = under if is_left else top + _COUNT
    # Two hands count alike on the beats: under the line only what stands nowhere above.
    if is_left and event.slot == 0:
        return
    shown = f"({event.count})" if event.kind == "rest" else event.count
    yield _text(x, y, shown, size, bold=event.slot == 0 and event.kind == "note")


def _chords(events: Sequence[Event], x: Callable[[Fraction], float]) -> Iterator[str]:
    before = ""
    for event in events:
        if event.chord and event.chord.symbol != before:
            before = event.chord.symbol
            yield _text(x(event.onset) - 4, 10, before, 12, anchor="start", bold=True)


def _diamond(x: float, y: float, half: float) -> str:
    return f'<path d="M{x:.1f} {y - half:.1f} l{half} {half} l-{half} {half} l-{half} -{half} z" fill="#000"/>'


def _text(x: float, y: float, text: str, size: float, *, anchor: str = "middle", bold: bool = False) -> str:
    weight = ' font-weight="700"' if bold else ""
    return f'<text x="{x:.1f}" y="{y:.1f}" font-size="{size:.1f}" text-anchor="{anchor}"{weight}>{escape(text)}</text>'


def _in_words(bar: _Bar) -> str:
    """Return a bar for who reads no picture: what is counted, struck and fingered, the left hand after the right."""
    right, *left = (", ".join(_said(row)) for row in bar.rows)
    under = "".join(f"; left hand: {row or 'silence'}" for row in left)
    return f"bar {bar.number}: {right or 'silence'}{under}"


def _said(events: Sequence[Event]) -> Iterator[str]:
    chord = ""
    for event in events:
        if event.kind != "note":
            continue
        new = event.chord.symbol if event.chord and event.chord.symbol != chord else ""
        chord = new or chord
        words = (
            event.count,
            new,
            event.pitch.shown if event.pitch else "",
            event.touch.words if event.touch else "",
            event.stroke,
            "accent" if event.accent == "accent" else "",
            f"{event.hit} hit" if event.hit else "",
        )
        yield " ".join(word for word in words if word)
