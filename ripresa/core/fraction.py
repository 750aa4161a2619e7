"""The exact number of this house: a compiled fraction, and never of a text.

Given a text of one sign, the compiled constructor writes into bytes that the whole process shares: all versions up to
1.24 parse into the interpreter's own ``b"\\0"``. So nobody else imports it, and ``Fraction`` here takes numbers alone;
``exact.fraction_of`` reads texts.
"""

from decimal import Decimal
from numbers import Rational
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from quicktions import Fraction as Fraction
else:
    from quicktions import Fraction as _Compiled

    #: What most are made of; looked up before anything else is asked, since this is done at every note.
    _PLAIN = frozenset({int, _Compiled, float})

    class _OfNumbers(type):
        """What makes the numbers and tells one from other values; they are the compiled ones themselves."""

        def __call__(cls, numerator: Any = 0, denominator: Any = None) -> _Compiled:
            if numerator.__class__ not in _PLAIN and not isinstance(numerator, Rational | Decimal | float):
                raise TypeError(f"Fraction takes numbers, not {numerator!r}. fraction_of reads a text.")
            return _Compiled(numerator, denominator)

        def __instancecheck__(cls, value: object) -> bool:
            return isinstance(value, _Compiled)

    class Fraction(metaclass=_OfNumbers):
        """An exact number: ``Fraction(3, 4)``, ``Fraction(84)``, ``Fraction(0.5)``."""
