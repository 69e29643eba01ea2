"""Texts in the language of whoever reads them."""

from typing import cast

from django.utils.translation import gettext_lazy


def lazy(text: str) -> str:
    """Return a text of a module or a class, to be translated whenever it is shown."""
    return cast(str, gettext_lazy(text))
