"""Exact numbers: beats, tempi and divisions as fractions, and how they are written.

``Exact`` is the type of every such field of a drill. It travels as text
(``"7/3"``), which its mark says and ``ripresa.formats.wire`` does.
"""

import fractions
import math
import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated

from ripresa.core.errors import Unreadable
from ripresa.core.fraction import Fraction as Fraction


@dataclass(frozen=True, slots=True)
class AsText:
    """Marks a fraction that travels and rests as text, ``"7/3"``."""


@dataclass(frozen=True, slots=True)
class ByKind:
    """Marks a union whose members are told apart by their field ``kind``."""


Exact = Annotated[Fraction, AsText()]

EXACT_PATTERN = r"^-?\d{1,9}(/[1-9]\d{0,8})?$"
_EXACT = re.compile(EXACT_PATTERN)
_VULGAR = {
    Fraction(1, 2): "½",
    Fraction(1, 3): "⅓",
    Fraction(2, 3): "⅔",
    Fraction(1, 4): "¼",
    Fraction(3, 4): "¾",
    Fraction(1, 5): "⅕",
    Fraction(2, 5): "⅖",
    Fraction(3, 5): "⅗",
    Fraction(4, 5): "⅘",
    Fraction(1, 6): "⅙",
    Fraction(5, 6): "⅚",
    Fraction(1, 8): "⅛",
    Fraction(3, 8): "⅜",
    Fraction(5, 8): "⅝",
    Fraction(7, 8): "⅞",
}


def fraction_of(text: str) -> Fraction:
    """Return the number that a text holds, as the standard library reads it: ``"7/3"``, ``"84"``, ``"0.5"``.

    The only way from a text to a fraction: ``Fraction`` itself refuses one.

    Raises:
        ValueError: It holds none.
        ZeroDivisionError: It is over nothing.

    >>> fraction_of("7/3")
    Fraction(7, 3)
    """
    read = fractions.Fraction(text)
    return Fraction(read.numerator, read.denominator)


def parse_exact(text: str | int) -> Fraction:
    """Return the fraction written as ``"7/3"``, ``"84"`` or the integer 84.

    Raises:
        Unreadable: Anything else; decimals too, because 0.1 is not exact.

    >>> parse_exact("7/3")
    Fraction(7, 3)
    """
    if isinstance(text, bool) or not isinstance(text, int | str):
        raise Unreadable(f"{text!r} is not an exact number. Write 84 or 7/3.")
    if not _EXACT.match(str(text)):
        raise Unreadable(f"“{text}” is not an exact number. Write a whole number or a fraction such as 7/3.")
    return fraction_of(str(text))


#: Numbers that people write as a word.
_WORDS = {"half": "1/2", "a half": "1/2", "quarter": "1/4", "a quarter": "1/4", "third": "1/3", "a third": "1/3"}


def parse_amount(text: str) -> Fraction:
    """Return what a person typed as a number: ``"84.5"``, ``".5"``, ``"84,5"``, ``"84 1/2"``, ``"84½"``, ``"half"``.

    A decimal is taken at its word, as tenths or hundredths, so it stays exact. A minus belongs to all of it.

    Raises:
        Unreadable: It is not a number.

    >>> parse_amount("84½"), parse_amount("5.6")
    (Fraction(169, 2), Fraction(28, 5))
    """
    plain = text.strip().replace(",", ".").replace("−", "-")
    below = plain.startswith("-")
    plain = plain.removeprefix("-")
    plain = _WORDS.get(plain.lower(), plain)
    plain = f"0{plain}" if plain.startswith(".") else plain
    for value, sign in _VULGAR.items():
        plain = plain.replace(sign, f" {value}")
    parts = plain.split()
    try:
        # ``Fraction`` reads "1e9" and "1_000" too, and neither is what a teacher types by intent.
        if not 1 <= len(parts) <= 2 or len(plain) > 20 or "e" in plain.lower() or "_" in plain:
            raise ValueError
        if any(not part[0].isdigit() for part in parts):
            raise ValueError
        total = sum((fraction_of(part) for part in parts), Fraction(0))
        return -total if below else total
    except (ValueError, ZeroDivisionError) as error:
        raise Unreadable(f"“{text.strip()}” is not a number. Write 84, 84.5 or 84½.") from error


def label(value: Fraction) -> str:
    """Return a number as a musician writes it: ``84``, ``14⅔``, ``½``; else to two decimals.

    >>> label(Fraction(44, 3)), label(Fraction(1, 2)), label(Fraction(336, 5))
    ('14⅔', '½', '67⅕')
    """
    if value < 0:
        return "−" + label(-value)
    whole, rest = divmod(value, 1)
    if not rest:
        return str(whole)
    if rest in _VULGAR:
        return (str(whole) if whole else "") + _VULGAR[rest]
    return decimal(value, 2)


def division_label(*divisions: Fraction) -> str:
    """Return divisions as a teacher writes them: ``4``, ``½``, ``3:2``; mixed beat by beat ``6+5``.

    >>> division_label(Fraction(4)), division_label(Fraction(3, 2)), division_label(Fraction(6), Fraction(5))
    ('4', '3:2', '6+5')
    """
    return "+".join(
        label(one) if one.denominator == 1 or one == Fraction(1, 2) else f"{one.numerator}:{one.denominator}"
        for one in divisions
    )


def change_label(before: Fraction, after: Fraction) -> str:
    """Return a change of division as a teacher writes it.

    >>> change_label(Fraction(5), Fraction(6))
    '5 → 6'
    """
    return f"{division_label(before)} → {division_label(after)}"


def decimal(value: Fraction, places: int) -> str:
    """Return a number rounded half up to so many decimals, trailing zeros kept.

    >>> decimal(Fraction(28, 5), 1), decimal(Fraction(10000, 84), 2)
    ('5.6', '119.05')
    """
    scaled = round_half_up(abs(value) * 10**places)
    digits = str(scaled).rjust(places + 1, "0")
    sign = "−" if value < 0 and scaled else ""
    return sign + (f"{digits[:-places]}.{digits[-places:]}" if places else digits)


def rounded(value: float, places: int) -> float:
    """Return a measured number with so many decimals; nothing at all has no sign, on every processor.

    >>> rounded(-0.00004, 4), rounded(-0.25, 1)
    (0.0, -0.2)
    """
    return round(value, places) + 0.0


def short(value: Fraction, places: int = 2) -> str:
    """Return a number to so many decimals at most, without zeros at its end: ``6.75``, ``7.2``, ``8``.

    >>> short(Fraction(27, 4)), short(Fraction(36, 5)), short(Fraction(11, 20)), short(Fraction(8))
    ('6.75', '7.2', '0.55', '8')
    """
    return decimal(value, places).rstrip("0").rstrip(".")


def told_beside(value: Fraction, limit: Fraction) -> str:
    """Return a number as finely as it takes to be told from a limit: ``6.8`` beside 6.7, but ``6.703``.

    >>> told_beside(Fraction(68, 10), Fraction(67, 10)), told_beside(Fraction(6703, 1000), Fraction(67, 10))
    ('6.8', '6.703')
    """
    for places in range(1, 7):
        if decimal(value, places) != decimal(limit, places):
            return decimal(value, places)
    return f"a little {'over' if value > limit else 'under'} {short(limit)}"


def round_half_up(value: Fraction) -> int:
    """Return the nearest whole number, halves going up.

    >>> round_half_up(Fraction(5, 2)), round_half_up(Fraction(-5, 2))
    (3, -2)
    """
    return math.floor(value + Fraction(1, 2))


def plural(count: Fraction | int, one: str, many: str | None = None) -> str:
    """Return a count with its noun: ``1 bar``, ``3½ bars``.

    >>> plural(1, "bar"), plural(Fraction(7, 2), "bar")
    ('1 bar', '3½ bars')
    """
    return f"{label(Fraction(count))} {one if count == 1 else many or one + 's'}"


_SIGNS = str.maketrans({"♯": "#", "♭": "b", "𝄪": "##", "𝄫": "bb", "♮": ""})


def plain_signs(text: str) -> str:
    """Return a text with sharps and flats as they are typed: ``♯`` and ``♭`` are read like ``#`` and ``b``.

    >>> plain_signs("F♯m7 B♭ 𝄫3")
    'F#m7 Bb bb3'
    """
    return text.translate(_SIGNS)


def listed(items: Sequence[str]) -> str:
    """Return words as they are said one after the other: ``a, b and c``.

    >>> listed(["the foot"]), listed(["the foot", "the count", "the hands"])
    ('the foot', 'the foot, the count and the hands')
    """
    return " and ".join([", ".join(items[:-1]), items[-1]]) if len(items) > 1 else "".join(items)


def capital(text: str) -> str:
    """Return a text as it begins a sentence: the rest of it stays as it is.

    >>> capital("the bass clef"), capital("C major")
    ('The bass clef', 'C major')
    """
    return text[:1].upper() + text[1:]
