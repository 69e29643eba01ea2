"""The devices that the settings name: a dotted path to what makes them for a wall, or none."""

from typing import cast

from django.conf import settings
from django.utils.module_loading import import_string

from trade.devices.base import Devices, Dial


def devices_for(wall: int, width_mm: float, taken: int) -> Devices | None:
    """Devices at a wall; None when none are set up.

    Args:
        wall: which one: stand-ins make up another one behind it for each.
        width_mm: of it.
        taken: how many readings there are already, so that a stand-in does not say the same again.
    """
    if not settings.DEVICES:
        return None
    return cast(Devices, import_string(settings.DEVICES)(wall, width_mm, taken))


def dial(wall: int) -> Dial | None:
    """Return a dial under a front edge, where the settings name one; None when none is set up."""
    return cast(Dial, import_string(settings.DIAL)(wall)) if settings.DIAL else None
