"""Every address of the application, as tests and the attack walk them."""

from collections.abc import Iterator
from typing import NamedTuple

from django.urls import URLPattern, URLResolver, get_resolver


class Address(NamedTuple):
    """A named address: its converters by name, and what it passes to its view besides."""

    name: str
    converters: dict[str, object]
    default_args: dict[str, object]


def addresses() -> Iterator[Address]:
    """Yield every named address, with its namespace in its name."""
    yield from _below(get_resolver(), "", {})


def _below(resolver: URLResolver, space: str, converters: dict[str, object]) -> Iterator[Address]:
    for each in resolver.url_patterns:
        known = converters | each.pattern.converters
        if isinstance(each, URLPattern):
            assert each.name is not None
            yield Address(space + each.name, known, each.default_args)
        else:
            inner = f"{space}{each.namespace}:" if each.namespace else space
            yield from _below(each, inner, known)
