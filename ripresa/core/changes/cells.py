"""Meter by cells: a beat made longer or shorter, and what is counted in it kept at its length."""

from dataclasses import replace

from ripresa.core.changes.pressing import typed_in_place
from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.material import Count, Strum, own_rhythm
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, label
from ripresa.core.rhythm import CountedBeat, Filled, Meter, leg_meters, meter_named, parse_count, there, write_count


def with_cells(drill: Drill, count: int, value: int, beat: int) -> Drill:
    """Return a drill in a meter that is longer by so many cells in a beat, shorter by a count below 0.

    Slots keep their length: a leg of 4 a beat in 3/4 without two sixteenths goes 4 + 4 + 2, and a rhythm that is typed
    loses what stood there; in a beat that is longer its last note is held.

    Args:
        count: Cells. value: What a cell is, 16 for a sixteenth. beat: From 1.

    Raises:
        OutOfRange: The meter has no such beat, or a division makes no whole slots in the new one.
    """
    before = meter_named(drill.meter)
    if len(before.bars) > 1 or len(leg_meters(drill.meter)) > 1:
        raise OutOfRange("Cells are added to one meter, not to meters that take turns. Take one first.", field="meter")
    name = f"{drill.meter} {'+' if count > 0 else '-'}{abs(count)}/{value}@{beat}"
    meter = meter_named(name)
    lasted = before.beats_of(1)[beat - 1]
    changed = replace(_recut(drill, before, beat, lasted + Fraction(count, value) / before.counted), meter=name)
    if own_rhythm(drill.material):
        # Its legs say nothing of slots.
        return changed
    return replace(changed, legs=tuple(_kept(leg, before, meter) for leg in drill.legs))


def _recut(drill: Drill, meter: Meter, at: int, now: Fraction) -> Drill:
    """Return a drill whose typed layers have what they had in a beat that lasts longer or shorter in every bar."""
    drill = typed_in_place(drill)
    hits, material = drill.hits, drill.material
    if hits.is_written:
        hits = replace(hits, text=_text_recut(hits.text, meter, at, now, "hits.text"))
    if isinstance(material, Strum):
        material = replace(material, pattern=_text_recut(material.pattern, meter, at, now, "material.pattern"))
    elif isinstance(material, Count):
        under = material.under.strip() and _text_recut(material.under, meter, at, now, "material.under")
        text = _text_recut(material.text, meter, at, now, "material.text")
        material = replace(material, text=text, under=under)
    return replace(drill, material=material, hits=hits)


def _text_recut(text: str, meter: Meter, at: int, now: Fraction, field: str) -> str:
    """Return a count in which the slots of a beat keep their length: those that have no place any more are cut.

    Raises:
        OutOfRange: They make no whole slots in the new length, or nothing would be left.
    """
    beats = []
    was = meter.beats_of(1)[at - 1]
    for beat in there(parse_count(text), meter.beats_of):
        if beat.beat == at:
            beat = _beat_recut(beat, was, now, field)
        elif beat.beat > at and not now:
            beat = beat._replace(beat=beat.beat - 1)
        if beat.slots:
            beats.append(beat)
    if not any(filled.kind == "note" for beat in beats for filled in beat.slots):
        raise OutOfRange(f"Nothing would be left of “{text}”. Take fewer cells, or from another beat.", field=field)
    return write_count(beats, at if now else None)


def _beat_recut(beat: CountedBeat, was: Fraction, now: Fraction, field: str) -> CountedBeat:
    if beat.division == 1 and now:
        # It stands for the beat, however long that is.
        return beat
    finer = (now * beat.division / was).denominator
    division = beat.division * finer
    if finer > 1 and beat.division.bit_count() > 1:
        raise OutOfRange(
            f"{beat.division} a beat makes no whole slots in a beat of {label(now)}. Type quarters of a beat there: "
            f"{beat.beat} e & a.",
            field=field,
        )
    slots = [Filled()] * division
    slots[::finer] = beat.slots
    size = int(now * division / was)
    slots = (slots + [Filled()] * size)[:size]
    return beat._replace(division=size, slots=tuple(slots), goes_on=False)


def _kept(leg: Leg, before: Meter, meter: Meter) -> Leg:
    """Return a leg whose slots last as long as they did, on the beats of another meter."""
    old, new = before.beats_of(1), meter.beats_of(1)
    slot = old[0] / leg.division
    if leg.following and leg.divisions != tuple(beat / slot for beat in old):
        raise OutOfRange(
            "A leg that mixes divisions has no one slot to keep. Take one division.", field="legs.division"
        )
    divisions = [beat / slot for beat in new]
    odd = next((beat for beat, notes in zip(new, divisions, strict=True) if notes.denominator > 1), None)
    if odd is not None:
        raise OutOfRange(
            f"{label(leg.division)} a beat makes no whole slots in a beat of {label(odd)}. Take a division that does, "
            "4 for sixteenths.",
            field="legs.division",
        )
    return Leg(divisions[0], tuple(divisions[1:]) if len(set(divisions)) > 1 else ())
