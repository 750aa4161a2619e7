"""What every command reads and prints: files, numbers as a person types them, JSON."""

import argparse
import json
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from ripresa.core.errors import NotFound, Unreadable
from ripresa.core.exact import Fraction, parse_amount


def bytes_of(name: str) -> bytes:
    """Return a file, or what stands on standard input for ``-``.

    Raises:
        NotFound, Unreadable: There is no such file, or it cannot be read.
    """
    if name == "-":
        return sys.stdin.buffer.read()
    try:
        return Path(name).read_bytes()
    except FileNotFoundError as error:
        raise NotFound(f"{name} does not exist.") from error
    except OSError as error:
        raise Unreadable(f"{name} cannot be read: {error.strerror}.") from error


def write(target: Path, body: bytes) -> None:
    """Write a file.

    Raises:
        Unreadable: It cannot be written.
    """
    with writing(target):
        target.write_bytes(body)


@contextmanager
def writing(target: Path) -> Iterator[None]:
    """Refuse what goes wrong with a file while it is written.

    Raises:
        Unreadable: It cannot be written.
    """
    try:
        yield
    except OSError as error:
        raise Unreadable(f"{target} cannot be written: {error.strerror}.") from error


def amount(text: str) -> Fraction:
    """Return a typed number, for argparse."""
    try:
        return parse_amount(text)
    except Unreadable as error:
        raise argparse.ArgumentTypeError(error.message) from error


def amounts(text: str) -> tuple[Fraction, ...]:
    """Return typed numbers with commas between them, for argparse."""
    return tuple(amount(one) for one in text.split(","))


def counts(text: str) -> tuple[int, ...]:
    """Return typed whole numbers with commas between them, for argparse."""
    try:
        return tuple(int(one) for one in text.split(","))
    except ValueError as error:
        raise argparse.ArgumentTypeError(f"“{text}” are not whole numbers. Write 1,2,4.") from error


def show(values: Any) -> None:
    """Print JSON."""
    print(json.dumps(values, ensure_ascii=False, indent=2))
