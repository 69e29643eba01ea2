"""One load case at one support."""

from typing import NamedTuple


class Demand(NamedTuple):
    """What a support must answer in one load case.

    `load_n`: downwards on the support; `moment_nmm`: about the wall's face, positive when it pulls
    the top away; `pull_n`: straight out of the wall, which `moment_nmm` counts too; `duration`: the
    load duration factor C_D; `case`: its name.
    """

    case: str
    duration: float
    load_n: float
    moment_nmm: float
    pull_n: float = 0.0
