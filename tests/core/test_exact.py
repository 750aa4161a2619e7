from decimal import Decimal
from fractions import Fraction as Standard
from typing import Any

import pytest
from hypothesis import given

from ripresa.core.errors import Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import decimal, fraction_of, label, parse_amount, parse_exact, plural
from tests.strategies import lengths


@given(lengths)
def test_an_exact_number_comes_back_as_it_was_written(value: F) -> None:
    assert parse_exact(str(value)) == value


@pytest.mark.parametrize("text", ["0.1", "1/0", "", "one", "1/-2", "1e3", "9" * 10, True, None, 1.0])
def test_what_is_not_exact_is_refused(text: object) -> None:
    with pytest.raises(Unreadable, match="not an exact number"):
        parse_exact(text)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("84", F(84)),
        (" 84.5 ", F(169, 2)),
        ("84,5", F(169, 2)),
        ("84½", F(169, 2)),
        ("84 1/2", F(169, 2)),
        ("⅔", F(2, 3)),
        ("7/3", F(7, 3)),
    ],
)
def test_what_a_person_types_as_a_number(text: str, value: F) -> None:
    assert parse_amount(text) == value


@pytest.mark.parametrize("text", ["", "fast", "8e2", "8_4", "1 2 3", "1/0", "9" * 30])
def test_what_is_no_number_is_refused_with_an_example(text: str) -> None:
    with pytest.raises(Unreadable, match=r"Write 84, 84\.5 or 84½"):
        parse_amount(text)


@pytest.mark.parametrize(
    ("value", "shown"),
    [(F(44, 3), "14⅔"), (F(1, 2), "½"), (F(29, 2), "14½"), (F(16), "16"), (F(-1, 4), "−¼"), (F(1, 7), "0.14")],
)
def test_numbers_are_written_as_musicians_write_them(value: F, shown: str) -> None:
    assert label(value) == shown


@pytest.mark.parametrize(
    ("value", "places", "shown"),
    [(F(1, 200), 2, "0.01"), (F(-1, 1000), 2, "0.00"), (F(2500, 21), 2, "119.05"), (F(5, 2), 0, "3")],
)
def test_decimals_round_half_up_and_keep_their_zeros(value: F, places: int, shown: str) -> None:
    assert decimal(value, places) == shown


def test_one_is_singular() -> None:
    assert (plural(1, "bar"), plural(F(1, 2), "bar"), plural(2, "half", "halves")) == ("1 bar", "½ bars", "2 halves")


@given(lengths)
def test_a_text_is_read_as_the_standard_library_reads_it(value: F) -> None:
    for text in (str(value), f"{float(value)!r}"):
        other = Standard(text)
        assert (fraction_of(text).numerator, fraction_of(text).denominator) == (other.numerator, other.denominator)


@pytest.mark.parametrize("text", ["6", "1/2", "0.5", "", b"6", bytearray(b"6"), None, [6]])
def test_a_number_is_never_made_of_a_text(text: object) -> None:
    with pytest.raises(TypeError, match=r"Fraction takes numbers, not .*fraction_of reads a text"):
        F(text)  # type: ignore[arg-type]
    # The byte that the compiled constructor would have written into: all that is empty in this process shares it.
    assert bytes(1)[0] == 0


@pytest.mark.parametrize("number", [3, F(3), Standard(3), Decimal(3), 3.0, True + 2])
def test_a_number_is_made_of_any_number(number: Any) -> None:
    assert F(number) == 3
    assert isinstance(F(number) + 1, F)


@given(lengths, lengths)
def test_compiled_numbers_are_the_standard_ones(one: F, other: F) -> None:
    first, second = Standard(one.numerator, one.denominator), Standard(other.numerator, other.denominator)
    assert str(one) == str(first)
    assert float(one) == float(first)
    assert hash(one) == hash(first)
    assert (one + other, one - other, one * other) == (first + second, first - second, first * second)
    assert (one < other, one == other) == (first < second, first == second)
    if other:
        assert (one / other, one // other, one % other) == (first / second, first // second, first % second)
