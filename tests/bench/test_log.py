"""The log.

Searched, sifted, charted; photos made anew; a piece copied onto another wall and judged there.
"""

import io
from datetime import date
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse
from msgspec.structs import replace
from PIL import Image

from bench.log import landing
from bench.models import Job, LogEntry, Photo, Wall
from bench.photos import RefusedPhotoError, made_anew
from tests.bench.test_workbench import BenchCase
from tests.plans import bracket_shelf, plan
from trade.assess import assess
from trade.errors import PlanError
from trade.plan.as_built import AsBuilt, Hung, Look

DAY = date(2031, 3, 1)


def jpeg(size: tuple[int, int] = (40, 30), **more: Any) -> bytes:
    made = io.BytesIO()
    Image.new("RGB", size, (200, 30, 30)).save(made, "JPEG", **more)
    return made.getvalue()


class Searching(BenchCase):
    def setUp(self) -> None:
        super().setUp()
        boathouse = Job.objects.create(name="Boathouse")
        block = plan(
            bracket_shelf(name="Oar shelf", anchor="plug_8"),
            structure="block_hollow",
            studs=(),
            layers=(),
        )
        as_built = AsBuilt(
            hung=(Hung(piece="shelf", on=DAY, minutes=90.0, cost=55.0, note="dusty"),),
            looks=(Look(piece="shelf", on=DAY, held="loose"),),
        )
        self.other = Wall.begin(
            boathouse, replace(block, name="Block wall", as_built=as_built), "Begin"
        )

    def look(self, **asked: str) -> str:
        return self.client.get(reverse("log:entries"), asked).content.decode()

    def test_what_did_i_use_on_the_block_wall_in_the_boathouse(self) -> None:
        page = self.look(q="block wall boathouse")
        self.assertIn("Oar shelf", page)
        self.assertIn("plugs", page)
        self.assertNotIn(">Ledge<", page)
        self.assertIn("No matches", self.look(q="block wall lighthouse"))
        self.assertIn("Oar shelf", self.look(q="DUSTY"))

    def test_sieves_and_nonsense_in_them(self) -> None:
        for asked, there in (
            ({"structure": "block_hollow"}, True),
            ({"structure": "timber"}, False),
            ({"fixing": "plug"}, True),
            ({"held": "loose"}, True),
            ({"held": "none"}, False),
            ({"kind": "rail"}, False),
            ({"kind": "'; drop"}, True),
            ({"page": "99999999999"}, True),
            ({"page": "x"}, True),
        ):
            with self.subTest(asked):
                self.assertEqual("Oar shelf" in self.look(**asked), there)

    def test_charts_say_what_held_and_what_it_took(self) -> None:
        self.assertIn("/log/charts/?q=", self.look(q="oar"))
        page = self.client.get(reverse("log:charts")).content.decode()
        self.assertIn("0 firm, 1 loose, 0 not inspected", page)
        self.assertRegex(page, r"90 minutes each on average; \d+ were thought \(1 told\)")

    def test_it_follows_the_plans_and_undo(self) -> None:
        self.assertEqual(
            set(LogEntry.objects.filter(wall=self.wall).values_list("key", flat=True)),
            {"shelf", "ledge"},
        )
        self.post("fix:remove", "ledge")
        self.assertEqual(LogEntry.objects.filter(wall=self.wall).count(), 1)
        self.post("undo")
        self.assertEqual(LogEntry.objects.filter(wall=self.wall).count(), 2)
        self.assertEqual(
            LogEntry.objects.get(wall=self.wall, key="shelf").outcome,
            assess(self.plan()).piece("shelf").outcome,
        )

    def test_as_many_queries_for_forty_lines_as_for_one(self) -> None:
        for n in range(45):
            Wall.begin(self.job, plan(bracket_shelf()), f"Begin {n}")
        self.look()
        with self.assertNumQueries(1):
            self.assertIn('rel="next"', self.look())

    def test_a_proven_piece_is_copied_and_judged_anew(self) -> None:
        answer = self.client.post(
            reverse("log:copy", args=[self.other.pk, "shelf"]), {"to": str(self.wall.pk)}
        )
        self.assertRedirects(answer, f"/walls/{self.wall.pk}/fix/?piece=shelf-2")
        landed = self.plan().piece("shelf-2")
        self.assertEqual((landed.name, landed.left_mm), ("Oar shelf", 1100.0))
        self.assertEqual(len(self.plan().as_built.hung), 0)
        self.assertContains(
            self.client.get(reverse("log:copy-to", args=[self.other.pk, "shelf"])), "Test wall"
        )
        self.assertEqual(
            self.client.post(
                reverse("log:copy", args=[self.other.pk, "shelf"]), {"to": "x"}
            ).status_code,
            404,
        )
        with self.assertRaisesRegex(PlanError, "longer than that wall"):
            landing(
                bracket_shelf(),
                plan(
                    bracket_shelf(left_mm=0.0, length_mm=500.0, supports_mm=(100.0, 400.0)),
                    width_mm=600.0,
                    studs=(),
                ),
            )


class Photos(BenchCase):
    def setUp(self) -> None:
        super().setUp()

    def add(self, raw: bytes, name: str = "wall.jpg") -> Any:
        url = reverse("photos:add", args=[self.wall.pk, "shelf"])
        return self.client.post(
            url,
            {"photo": SimpleUploadedFile(name, raw), "caption": "<b>left</b>", "stage": "record"},
            follow=True,
        )

    def test_the_place_that_a_camera_wrote_is_gone_and_the_picture_upright_and_small(self) -> None:
        exif = Image.Exif()
        exif[0x0112] = 6  # turned by a quarter
        exif.get_ifd(0x8825)[1] = "N"
        exif[0x010F] = "a camera"
        self.assertContains(self.add(jpeg((3000, 2000), exif=exif)), "&lt;b&gt;left")
        photo = Photo.objects.get()
        self.assertEqual((photo.wide, photo.high), (1067, 1600))
        answer = self.client.get(reverse("photos:show", args=[self.wall.pk, photo.pk]))
        with Image.open(io.BytesIO(b"".join(answer.streaming_content))) as kept:  # type: ignore[attr-defined]
            self.assertEqual((kept.size, len(kept.getexif())), ((1067, 1600), 0))
        self.client.post(reverse("photos:drop", args=[self.wall.pk, photo.pk]))
        self.assertNotContains(
            self.client.get(f"{self.url('stage', 'record')}?piece=shelf&look=look"), "<img"
        )
        self.client.post(reverse("bin:restore", args=["photo", photo.pk]))
        self.assertContains(
            self.client.get(f"{self.url('stage', 'record')}?piece=shelf&look=look"), "<img"
        )

    def test_what_is_no_photo_is_refused(self) -> None:
        svg = b'<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'
        for raw in (
            svg,
            b"",
            b"\x89PNG\r\n\x1a\n" + b"x" * 50,
            b"%PDF-1.7",
            jpeg()[:200],
            b"GIF89a" + b"0" * 40,
        ):
            with self.subTest(raw[:10]):
                self.assertContains(self.add(raw or b" "), "That is not a photo", status_code=422)
        self.assertEqual(Photo.objects.count(), 0)
        with self.assertRaisesRegex(RefusedPhotoError, "too many pixels"):
            made_anew(self.huge())

    def huge(self) -> bytes:
        """A small file that says it is 10 000 by 8 000."""
        made = io.BytesIO()
        Image.new("1", (10_000, 8_000)).save(made, "PNG")
        return made.getvalue()

    def test_a_wall_without_photos_says_nothing_of_them(self) -> None:
        self.assertNotContains(
            self.client.get(f"{self.url('stage', 'record')}?piece=shelf&look=look"), "<img"
        )
