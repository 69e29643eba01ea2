"""The wall's half of a bevelled cleat by hand, apart from what hangs on it.

Plywood 80 x 18 under 45 degrees: S = 80 · 18² / 6 = 4 320, the bevel 18 √2 = 25.46 wide. It may be
bent with 6.80 and pressed with 4.00 MPa for minutes.
"""

from django.test import SimpleTestCase

from trade import data
from trade.check import Check
from trade.load.demand import Demand
from trade.mounts.bevel import Bevel, Holder, checks, lock, seating

CLEAT = Bevel("plywood", 18.0, 80.0, 45.0, 100.0, 1000.0, (100.0, 900.0))
YEARS, MINUTES = data.house("duration_years"), data.house("duration_minutes")


def pull(n: float, duration: float = MINUTES) -> tuple[Demand, ...]:
    return (Demand("loaded", duration, n, 0.0, n),)


def one(found: list[Check], code: str) -> Check:
    return next(check for check in found if check.code == code)


class ByHand(SimpleTestCase):
    def test_what_hangs_on_it_pulls_at_the_middle_of_the_bevel(self) -> None:
        """Half a cleat further out than its own bevel.

        50 000 + 100 · 9 = 50 900 over 100: 509 N, more than 100 tan 45°, at 80 − 9 = 71; 36 139 and
        the load at 9: 37 039. Where it hangs flat the slope decides: 100 N.
        """
        case = CLEAT.at_cleat(Demand("loaded", MINUTES, 100.0, 50_000.0))
        self.assertAlmostEqual(case.pull_n, 509.0)
        self.assertAlmostEqual(case.moment_nmm, 37_039.0)
        self.assertAlmostEqual(CLEAT.at_cleat(Demand("", MINUTES, 100.0, 0.0)).pull_n, 100.0)

    def test_of_what_is_in_it_only_what_makes_it_worse(self) -> None:
        """100 N at 109, pushed with 50 at 209, 30 at 309: 30 620 over 180, z = 170.1.

        The 40 N at 19 would help. So the bevel lifts with 180 · 170.1 / 100 = 306.2, 126.2 more
        than it weighs.
        """
        hangs = ((100.0, 100.0), (50.0, 200.0), [(40.0, 10.0), (30.0, 300.0)])
        self.assertAlmostEqual(seating(CLEAT, *hangs, ()).demand.value, 1.701, delta=0.001)
        locked = lock(CLEAT, *hangs, ())
        self.assertAlmostEqual(locked.demand.value, 126.2, delta=0.1)
        self.assertAlmostEqual(locked.capacity.value, 2 * data.house("lock_screw_n") * 1.6)

    def test_near_an_end_it_presses_no_longer_than_there_is_wood_on_both_sides(self) -> None:
        """20 from the end: c = 40, where it would be 57.1.

        381.1 · 40 / 8 / 4 320 = 0.441 of 6.80; 539.0 / (40 · 25.46) = 0.529 of 4.00, which is more.
        """
        ends = CLEAT._replace(supports_mm=(20.0, 980.0))
        for place in (0, 1):
            steps = one(checks(ends, {place: pull(381.1)}, ()), "cleat.bending").values
            self.assertAlmostEqual(steps["c"], 40.0)
            self.assertAlmostEqual(steps["σ"], 0.441, delta=0.001)
            self.assertAlmostEqual(steps["u"], 0.529 / 4.00, delta=0.002)

    def test_a_steeper_bevel_is_wider(self) -> None:
        """18 / cos 60° = 36; 1 000 N over 1 000 · 36."""
        steep = CLEAT._replace(degrees=60.0)
        nib = one(checks(steep, {0: pull(1000 / 2**0.5)}, ()), "cleat.nib")
        self.assertAlmostEqual(nib.values["t_b"], 36.0)
        self.assertAlmostEqual(nib.demand.value, 1 / 36)

    def test_one_holder_bends_and_twists_it_half_way_between_its_screws(self) -> None:
        """Two places pull with 200 each, 100 of it the hardest holder: 0.3 N/mm along it.

        0.3 · 800² / 8 + 300 · 800 / 4 = 84 000 pushed: 19.44 MPa. 300 at 40 − 9 = 31 above its
        middle, half of it to either side: 4 650; beyond the last screws all of it.
        """
        demands = {0: pull(200.0, YEARS), 1: pull(200.0, YEARS)}
        holder = Holder(100.0, 300.0)
        found = checks(CLEAT, demands, (), holder)
        self.assertAlmostEqual(one(found, "cleat.bending").demand.value, 19.44, delta=0.01)
        self.assertAlmostEqual(one(found, "cleat.twist").values["T"], 9_300)
        near = checks(CLEAT._replace(supports_mm=(70.0, 930.0)), demands, (), holder)
        self.assertAlmostEqual(one(near, "cleat.twist").values["T"], 4_650)
