"""What was kept by an older version is there after a migration, and before it again."""

from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.test import TransactionTestCase

from bench.models import Job, Revision, Wall
from tests.plans import bracket_shelf, plan
from trade.plan import plan_file


class Packing(TransactionTestCase):
    def to(self, name: str) -> MigrationExecutor:
        executor = MigrationExecutor(connection)
        executor.migrate([("bench", name)])
        return executor

    def test_plans_are_packed_and_unpacked_as_they_were(self) -> None:
        wall = Wall.begin(Job.objects.create(name="Job"), plan(), "Begin")
        wall.record(plan(bracket_shelf(left_mm=650.25)), "Move", wall.seen)
        before = list(Revision.objects.values_list("pk", "packed"))
        try:
            old = (
                self.to("0009_told_made")
                .loader.project_state([("bench", "0009_told_made")])
                .apps.get_model("bench", "Revision")
            )
            plans = [
                plan_file.load(text.encode()) for text in old.objects.values_list("plan", flat=True)
            ]
            self.assertEqual(plans, [plan(), plan(bracket_shelf(left_mm=650.25))])
        finally:
            self.to("0011_names")
        self.assertEqual(list(Revision.objects.values_list("pk", "packed")), before)
