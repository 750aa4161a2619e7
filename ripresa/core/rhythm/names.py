"""What a division is called: eighths, triplets, sixteenths, fives."""

from ripresa.core.exact import Fraction, division_label

#: Notes by their value, as a share of a whole note: the names of the printed notes.
_NOTES = {
    Fraction(1): "whole notes",
    Fraction(1, 2): "halves",
    Fraction(1, 4): "quarters",
    Fraction(1, 8): "eighths",
    Fraction(1, 16): "sixteenths",
    Fraction(1, 32): "thirty-seconds",
    Fraction(1, 64): "sixty-fourths",
    Fraction(3, 4): "dotted halves",
    Fraction(3, 8): "dotted quarters",
    Fraction(3, 16): "dotted eighths",
}
#: Notes that no printed value has, by how many are in a beat.
_TUPLETS = {
    2: "duplets",
    3: "triplets",
    4: "fours",
    5: "fives",
    6: "sixes",
    7: "sevens",
    8: "eights",
    9: "nines",
    10: "tens",
    11: "elevens",
    12: "twelves",
}


def division_name(divisions: tuple[Fraction, ...], counted: Fraction) -> str:
    """Return what notes of a division are called where bpm counts a note of this value.

    Args:
        divisions: Notes a beat; several where beats take turns. counted: The beat, as a share of a whole note.

    >>> division_name((Fraction(3),), Fraction(1, 4)), division_name((Fraction(3),), Fraction(3, 8))
    ('triplets', 'eighths')
    >>> division_name((Fraction(6), Fraction(5)), Fraction(1, 4)), division_name((Fraction(3, 2),), Fraction(1, 4))
    ('sixes and fives', '3:2')
    """
    if len(divisions) > 2 or len(set(divisions)) < len(divisions):
        # Many beats that take turns are a pattern, and read as its numbers.
        return f"{division_label(*divisions)} a beat"
    return " and ".join(_name(one, counted) for one in divisions)


def _name(division: Fraction, counted: Fraction) -> str:
    printed = _NOTES.get(counted / division)
    # Two in a dotted beat are written as duplets, though a dotted eighth is as long.
    if printed and (printed.startswith("dotted") and division != 1):
        printed = None
    if printed:
        return printed
    written = division_label(division)
    return _TUPLETS.get(int(division), written) if division.denominator == 1 else written
