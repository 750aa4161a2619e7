"""What ``ripresa judge`` prints of a take: matched notes, figures in ms, per cent and dB, the word, its faults.

docs/take-format.md says what each number is; ``judged_schema`` is the schema of all of it.
"""

from collections.abc import Iterable
from typing import Any, Literal

from pydantic import ConfigDict

from ripresa.core.exact import division_label, rounded
from ripresa.core.takes import (
    AccentFigures,
    CornerFigures,
    Due,
    Fault,
    FaultKind,
    Figures,
    Furthest,
    Interval,
    Judged,
    LegFigures,
    Limits,
    LostBeat,
    Mark,
    Offer,
    PlaceFigures,
    Remedy,
    SeamFigures,
    TogetherFigures,
    furthest_limit,
    misplaced,
    remedies,
    times_beyond,
)
from ripresa.formats.wire import Shape

_MS, _PERCENT, _PLAIN = 1000.0, 100.0, 1.0


class _Shape(Shape):
    model_config = ConfigDict(extra="forbid")


class Figure(_Shape):
    """A figure, its 95 % half-width, and how many notes it rests on."""

    value: float
    half_width: float
    count: int


class SpreadFigure(Figure):
    """The spread over all divisions, and of each."""

    by_division: dict[str, Figure]


class SeamAnswer(_Shape):
    """A change: in ms, its first beat and its first two; each time; the first beat in the band again, from 1."""

    kind: str
    name: str
    first: Figure
    two: Figure
    each: list[float]
    back_in_beat: int | None


class ChangeAnswer(_Shape):
    """A change by its first note, in ms: ``inside`` a bar or leg too; how often it lay beyond its limit."""

    kind: str
    name: str
    first_note: Figure | None
    first_beat: Figure
    limit_note: float
    limit_beat: float
    times: int
    heard: int


class PlaceAnswer(_Shape):
    """A note of the drill that is off over its repeats, in ms; ``times`` of them beyond the limit; and why there."""

    event: int
    place: str
    reason: str
    offset: Figure
    limit: float
    times: int
    heard: int


class FurthestAnswer(_Shape):
    """Where a beat’s mean was furthest from the click, in ms: from its own start where the latency is not known."""

    offset: Figure
    limit: float
    from_click: bool
    place: str
    passed: int


class CornerAnswer(_Shape):
    """Where the tempo turned at once: per cent against what was asked, before and after."""

    place: str
    passed: int
    before: Figure
    after: Figure


class WentBackAnswer(_Shape):
    """Where the player went back to: beats that were played once more, and seconds of silence before."""

    place: str
    passed: int
    beats: float
    stopped: float


class LandingAnswer(_Shape):
    """A kind of landing, in ms."""

    kind: str
    offset: Figure
    times: int


class HandAnswer(_Shape):
    """One symbol of the hand row: in ms, and its level in dB."""

    spread: Figure | None
    habit: Figure | None
    level: Figure | None


class TogetherAnswer(_Shape):
    """Two hands where both are due at once: how long after the right the left one comes, and the SD of that, in ms.

    By how many dB the right hand is ``louder`` there; null where levels were not heard.
    """

    apart: Figure
    spread: Figure
    louder: Figure | None


class AccentAnswer(_Shape):
    """Accents in dB; a velocity counts 40 · log10(velocity / 127)."""

    over_plain: Figure | None
    over_ghost: Figure | None
    misplaced: int
    heard: int
    hands: dict[str, Figure]


class LostAnswer(_Shape):
    """Where player and click parted; event among the sounded notes of all passes; pass from 1."""

    kind: Literal["late", "early", "silent", "group", "back"]
    ms: float
    beats: float
    event: int
    passed: int
    bar: int
    beat: int


class FiguresAnswer(_Shape):
    """Every figure of a take; habits and shares by division and slot, from 0."""

    due: int
    matched: int
    missed: int
    extra: int
    wrong: int
    misplaced: int
    outside: int
    again: int
    start: Figure | None
    with_click: Figure | None
    tempo: Figure | None
    bend: Figure | None
    spread: SpreadFigure | None
    habit: dict[str, dict[str, Figure]]
    shares: dict[str, dict[str, float]]
    crowding: dict[str, Figure]
    swing: dict[str, Figure]
    seams: list[SeamAnswer]
    landings: list[LandingAnswer]
    fills: Figure | None
    hands: dict[str, HandAnswer]
    together: TogetherAnswer | None
    accents: AccentAnswer | None
    articulation: Figure | None
    lost_beats: list[LostAnswer]
    changes: list[ChangeAnswer]
    places: list[PlaceAnswer]
    furthest: FurthestAnswer | None
    corner: CornerAnswer | None
    went_back: list[WentBackAnswer]


class FaultAnswer(_Shape):
    """What lies outside of its limit (or could, in a near take); in ms, %, dB, beats or to 1, as ``unit`` says."""

    kind: FaultKind
    where: str
    value: float
    half_width: float
    limit: float
    unit: Literal["ms", "%", "dB", "beats", ":1"]


class RemedyAnswer(_Shape):
    """What is offered first against the first fault."""

    kind: str
    name: str
    bpm: str


class OfferAnswer(_Shape):
    """What fits better than what was asked, of a take that is refused."""

    kind: str
    label: str
    bpm: str | None
    division: int | None
    passes: int | None


class JudgedLine(_Shape):
    """A take as it is judged; events are counted among the sounded notes of all passes, notes as they were given."""

    matched: list[tuple[int, int]]
    missed: list[int]
    extra: list[int]
    figures: FiguresAnswer | None
    mark: Mark
    refused: str
    stopped: bool
    faults: list[FaultAnswer]
    remedy: RemedyAnswer | None
    offers: list[OfferAnswer]
    reasons: list[str]


def judged_values(due: Due, judged: Judged, limits: Limits) -> dict[str, Any]:
    """Return a judged take as plain values."""
    word, match = judged.verdict, judged.match
    found = [] if word.mark != "shaky" else _first_remedies(due, word.faults)
    return JudgedLine(
        matched=list(match.pairs),
        missed=list(match.missed),
        extra=list(match.extra),
        figures=figures_answer(due, judged.figures, limits),
        mark=word.mark,
        refused=word.refused,
        stopped=word.refused == "stopped",
        faults=[_fault(fault) for fault in word.faults],
        remedy=found[0] if found else None,
        offers=[_offer(offer) for offer in word.offers],
        reasons=list(word.reasons),
    ).model_dump(mode="json")


def unmeasured_values(reason: str) -> dict[str, Any]:
    """Return a take that is too long to be measured, as plain values."""
    return JudgedLine(
        matched=[],
        missed=[],
        extra=[],
        figures=None,
        mark="none",
        refused="long",
        stopped=False,
        faults=[],
        remedy=None,
        offers=[],
        reasons=[reason],
    ).model_dump(mode="json")


def figures_answer(due: Due, figures: Figures, limits: Limits) -> FiguresAnswer:
    """Return the figures of a take in ms, per cent and dB."""
    spread = _figure(figures.spread, _MS)
    by_division = {f"{leg.hand} {division_label(leg.division)}".strip(): leg for leg in figures.legs}
    return FiguresAnswer(
        due=figures.due,
        matched=figures.matched,
        missed=figures.missed,
        extra=figures.extra,
        wrong=figures.wrong,
        misplaced=misplaced(figures, limits),
        outside=figures.outside,
        again=figures.again,
        start=_figure(figures.bias, _MS),
        with_click=_figure(figures.with_click, _MS),
        tempo=_figure(figures.tempo_percent, _PLAIN),
        bend=_figure(figures.bend, _PLAIN),
        spread=SpreadFigure(
            **spread.model_dump(),
            by_division=_told((name, _figure(leg.spread, _MS)) for name, leg in by_division.items()),
        )
        if spread
        else None,
        habit={name: _habits(leg) for name, leg in by_division.items()},
        shares={
            name: {str(slot.slot): rounded(slot.share, 5) for slot in leg.slots if slot.share is not None}
            for name, leg in by_division.items()
        },
        crowding=_told((name, _figure(leg.crowding, _PERCENT)) for name, leg in by_division.items()),
        swing=_told(
            (name, _figure(leg.swing.heard if leg.swing else None, _PLAIN)) for name, leg in by_division.items()
        ),
        seams=[_seam(seam, limits) for seam in figures.seams],
        landings=[
            LandingAnswer(kind=one.kind, offset=_sure(one.offset, _MS), times=one.times) for one in figures.landings
        ],
        fills=_figure(figures.fills, _PLAIN),
        hands={
            one.symbol: HandAnswer(
                spread=_figure(one.spread, _MS), habit=_figure(one.habit, _MS), level=_figure(one.level, _PLAIN)
            )
            for one in figures.hands
        },
        together=_together(figures.together) if figures.together else None,
        accents=_accents(figures.accents) if figures.accents else None,
        articulation=_figure(figures.articulation, _PERCENT),
        lost_beats=[_lost(due, one) for one in figures.lost],
        changes=[_change(seam, limits) for seam in figures.seams],
        places=[_place(one, limits) for one in figures.places],
        furthest=_furthest(figures.furthest, limits) if figures.furthest else None,
        corner=_corner(figures.corner) if figures.corner else None,
        went_back=[_went_back(one) for one in figures.lost if one.kind == "back"],
    )


def judged_schema() -> dict[str, Any]:
    """Return the JSON Schema of what ``ripresa judge`` prints of a take."""
    found = JudgedLine.model_json_schema()
    found["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    found["title"] = "A take as Ripresa judges it"
    return found


def _sure(interval: Interval, scale: float) -> Figure:
    return Figure(
        value=rounded(interval.value * scale, 4),
        half_width=rounded(interval.half_width * scale, 4),
        count=interval.count,
    )


def _together(found: TogetherFigures) -> TogetherAnswer:
    return TogetherAnswer(
        apart=_sure(found.apart, _MS), spread=_sure(found.spread, _MS), louder=_figure(found.louder, _PLAIN)
    )


def _figure(interval: Interval | None, scale: float) -> Figure | None:
    return _sure(interval, scale) if interval else None


def _told(pairs: Iterable[tuple[str, Figure | None]]) -> dict[str, Figure]:
    return {name: figure for name, figure in pairs if figure is not None}


def _habits(leg: LegFigures) -> dict[str, Figure]:
    return _told((str(slot.slot), _figure(slot.habit, _MS)) for slot in leg.slots)


def _seam(seam: SeamFigures, limits: Limits) -> SeamAnswer:
    back = seam.back_in(limits.of("seam").at(seam.gap))
    return SeamAnswer(
        kind=seam.kind,
        name=seam.name,
        first=_sure(seam.first, _MS),
        two=_sure(seam.two, _MS),
        each=[rounded(value * _MS, 3) for value in seam.each],
        back_in_beat=back,
    )


def _change(seam: SeamFigures, limits: Limits) -> ChangeAnswer:
    note, beat = limits.of("first").at(seam.gap), limits.of("seam").at(seam.gap)
    return ChangeAnswer(
        kind=seam.kind,
        name=seam.name,
        first_note=_figure(seam.note, _MS),
        first_beat=_sure(seam.first, _MS),
        limit_note=rounded(note * _MS, 3),
        limit_beat=rounded(beat * _MS, 3),
        times=sum(abs(one) > note for one in seam.notes),
        heard=len(seam.notes),
    )


def _place(place: PlaceFigures, limits: Limits) -> PlaceAnswer:
    limit = limits.of("seam").at(place.gap)
    return PlaceAnswer(
        event=place.event,
        place=place.name,
        reason=place.reason,
        offset=_sure(place.offset, _MS),
        limit=rounded(limit * _MS, 3),
        times=times_beyond(place.each, limit, place.offset.value),
        heard=len(place.each),
    )


def _furthest(found: Furthest, limits: Limits) -> FurthestAnswer:
    return FurthestAnswer(
        offset=_sure(found.offset, _MS),
        limit=rounded(furthest_limit(found, limits) * _MS, 3),
        from_click=found.is_known,
        place=found.place,
        passed=found.turn + 1,
    )


def _corner(corner: CornerFigures) -> CornerAnswer:
    return CornerAnswer(
        place=corner.place,
        passed=corner.turn + 1,
        before=_sure(corner.before, _PLAIN),
        after=_sure(corner.after, _PLAIN),
    )


def _went_back(lost: LostBeat) -> WentBackAnswer:
    return WentBackAnswer(
        place=lost.place, passed=lost.turn + 1, beats=rounded(lost.beats, 4), stopped=rounded(lost.seconds, 4)
    )


def _accents(accents: AccentFigures) -> AccentAnswer:
    return AccentAnswer(
        over_plain=_figure(accents.over_plain, _PLAIN),
        over_ghost=_figure(accents.over_ghost, _PLAIN),
        misplaced=accents.misplaced,
        heard=accents.due,
        hands={symbol: _sure(interval, _PLAIN) for symbol, interval in accents.hands},
    )


def _lost(due: Due, lost: LostBeat) -> LostAnswer:
    event = due.reading.every[lost.event]
    return LostAnswer(
        kind=lost.kind,  # type: ignore[arg-type]
        ms=rounded(lost.seconds * _MS, 3),
        beats=rounded(lost.beats, 4),
        event=due.number_of(lost.event, lost.turn),
        passed=lost.turn + 1,
        bar=event.bar,
        beat=event.beat,
    )


def _fault(fault: Fault) -> FaultAnswer:
    scale, unit = {"s": (_MS, "ms"), "notes": (_PERCENT, "%")}.get(fault.unit, (_PLAIN, fault.unit))
    return FaultAnswer(
        kind=fault.kind,
        where=fault.where,
        value=rounded(fault.value * scale, 4),
        half_width=rounded(fault.half_width * scale, 4),
        limit=rounded(fault.limit * scale, 4),
        unit=unit,  # type: ignore[arg-type]
    )


def _first_remedies(due: Due, faults: Iterable[Fault]) -> list[RemedyAnswer]:
    return [_remedy(one) for fault in faults for one in remedies(due.reading, due.bpm, fault)[:1]]


def _remedy(remedy: Remedy) -> RemedyAnswer:
    return RemedyAnswer(kind=remedy.key, name=remedy.name, bpm=str(remedy.bpm))


def _offer(offer: Offer) -> OfferAnswer:
    bpm = None if offer.bpm is None else str(offer.bpm)
    return OfferAnswer(kind=offer.kind, label=offer.label, bpm=bpm, division=offer.division, passes=offer.passes)
