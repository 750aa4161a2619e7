"""How the API's description tells of what is sent as compiled records and tables: as models of the same fields."""

from functools import cache, reduce
from operator import or_
from types import GenericAlias, UnionType
from typing import Any, Literal, Union, get_args, get_origin, get_type_hints

from msgspec import NODEFAULT, Struct, structs
from pydantic import BaseModel, ConfigDict, Field, create_model

from ripresa.formats.wire import Shape
from ripresa.web.shapes.table import Table


class Distinct(Shape):
    """A column of few different values: these, and which of them each row has."""

    of: list[str | float | None]
    at: list[int]


class CountedFrom(Shape):
    """A column that counts: its first number, one more in each row."""

    model_config = ConfigDict(populate_by_name=True)
    first: int = Field(alias="from")


@cache
def described(shape: type[Struct]) -> type[BaseModel]:
    """Return the model that describes a shape: the same fields, for the description of the API."""
    fields: dict[str, Any] = {name: (hint, ...) for name, hint in _hints(shape).items()}
    return create_model(shape.__name__, __base__=Shape, __doc__=shape.__doc__, __module__=shape.__module__, **fields)


#: The tables that were described, by their names, and what a column that is not sent stands for.
DEFAULTS: dict[str, dict[str, Any]] = {}


@cache
def _table(row: type[Struct]) -> type[BaseModel]:
    """Return the model that describes a table of rows of a kind."""
    columns: dict[str, Any] = {name: (_column(hint), Field(default_factory=list)) for name, hint in _hints(row).items()}
    name = row.__name__.removesuffix("Shape") + "Table"
    DEFAULTS[name] = {one.name: one.default for one in structs.fields(row) if one.default is not NODEFAULT}
    return create_model(name, __base__=Shape, __doc__=row.__doc__, __module__=__name__, rows=(int, ...), **columns)


def _column(hint: Any) -> Any:
    column = GenericAlias(list, (hint,))
    if hint is int or int in get_args(hint):
        return column | CountedFrom
    return column | Distinct if hint is float or _is_text(hint) else column


def _is_text(hint: Any) -> bool:
    is_one_of = get_origin(hint) in {Literal, Union, UnionType}
    return hint is str or isinstance(hint, str) or (is_one_of and any(_is_text(one) for one in get_args(hint)))


def _hints(shape: type[Any]) -> dict[str, Any]:
    return {name: _inside(hint) for name, hint in get_type_hints(shape, include_extras=True).items()}


def _inside(hint: Any) -> Any:
    """Return a type with the shapes inside it described."""
    if isinstance(hint, type) and issubclass(hint, Struct):
        return described(hint)
    of = get_origin(hint)
    inside = tuple(_inside(one) for one in get_args(hint)) if of in {list, tuple, Table, Union, UnionType} else ()
    if of is Table:
        return _table(get_args(hint)[0])
    if of in {list, tuple}:
        return GenericAlias(of, inside)
    return reduce(or_, inside) if inside else hint
