"""An attacker's day.

`python -m benchmarks.attack [forms] [documents]`, by default 2 000 hostile forms and 600 documents.

On the demo, with accounts: every address over every wall and piece as somebody who is not signed
in, as a stranger with an account and as a helper of one job; then forms full of nonsense and
documents that are broken, by the owner. Counted: what is private and was seen, what changed that
must not, and what ended in an error of ours. Exit status 1 where any of it is not nought.
"""

import io
import json
import os
import random
import re
import sys
import tempfile
import zipfile
from collections import Counter
from collections.abc import Iterator
from itertools import product
from typing import Any

POSTS, DOCUMENTS = 2_000, 600
_NAMED = re.compile(r'name="([\w-]{1,40})"')
# what a helper may change: what was done and seen at the wall
_HELPS = ("hang:report", "photos:add")
_OPTIONS: dict[str, list[Any]] = {
    "stage": ["survey", "load", "fix", "mark", "cut", "hang", "record"],
    "kind": ["pdf", "svg", "dxf"],
    "index": [0, 7],
    "n": [0],
    "what": ["template", "stage_nav", "own", "wall"],
    "question": ["anchors", "nonsense"],
    "offcut": [1],
    "photo": [1],
    "share": [1],
    "run": [1],
    "pk": [1],
    "token": ["x"],
    "uid": ["x"],
    "units": ["furlongs"],
    "field": ["x"],
}
HOSTILE = (
    *(
        "",
        "0",
        "-1",
        "9" * 5_000,
        "1e308",
        "nan",
        "inf",
        "1/0",
        "½",
        "2^63",
        str(2**63),
        "5' 4 3/8\"",
        "' OR 1=1 --",
        "{A}",
        "%s%n",
    ),
    *(
        "<script>alert(1)</script>",
        "{0.__class__}",
        "../../etc/passwd",
        "a\x00b",
        "Zwei\nZeilen",
        "\u202eabc",
        "🪜" * 40,
        " " * 3_000,
    ),
    *(
        "1, " * 2_000,
        "true",
        "null",
        "[]",
        "2031-02-30",
        "0001-01-01",
        "9999-12-31T23:59:59Z",
        "shelf",
        "fix",
        "done",
        "undo",
        "on",
    ),
)
_USUAL = (
    "400 mm",
    "2 m",
    "16 in",
    "10",
    "2",
    "1",
    "8 kg",
    "everyday",
    "display",
    "oak_red",
    "wood_10",
    "76 mm",
    "gypsum_12_7",
    "timber",
    "plug_8",
    "toggle_14",
    "books",
    "cut",
    "fix",
    "on",
    "400, 800, 1200",
    "bracket_shelf",
    "thing",
    "more",
    "oil_varnish",
)
_ENDS = (
    "people:sign-out",
    "people:account",
    "bin:delete-wall",
    "bin:delete-job",
    "people:end-share",
)  # after these there is nothing left to attack


def addresses(walls: list[Any]) -> Iterator[tuple[str, str]]:
    """Every address of the application over some walls and their pieces."""
    from django.urls import reverse

    from tests.addresses import addresses as every_address

    for each in every_address():
        for wall in walls:
            known = _OPTIONS | {
                "wall": [wall.pk],
                "job": [wall.job_id],
                "key": [piece.key for piece in wall.plan().pieces],
            }
            names = [name for name in each.converters if name not in each.default_args]
            for values in product(*(known[name] for name in names)):
                kwargs = dict(zip(names, values, strict=True)) | each.default_args
                yield each.name, reverse(each.name, kwargs=kwargs)
            if "wall" not in names and "job" not in names:
                break


def access(clients: dict[str, Any], walls: list[Any], helped: int) -> Counter[str]:
    """Every address as each role: how many requests, what private was seen, what changed."""
    from bench.models import Revision, Wall

    found: Counter[str] = Counter()
    for role, client in clients.items():
        for name, url in addresses(walls):
            own = role == "helper" and (f"/walls/{helped}/" in url or url == "/")
            before = (Revision.objects.count(), Wall.objects.filter(deleted=None).count())
            for answer in (
                client.get(url),
                client.post(url, {"base": "1", "what": "done", "step": "ready"}),
            ):
                found["requests"] += 1
                found["errors"] += answer.status_code >= 500
                body = b"".join(answer) if answer.streaming else answer.content
                seen = answer.status_code == 200 and not own and b"SECRET" in body
                found["private seen"] += seen
                if seen:
                    print(f"  {role} saw {url}", flush=True)
            after = (Revision.objects.count(), Wall.objects.filter(deleted=None).count())
            found["changed"] += (
                after != before
                and not (own and name in _HELPS)
                and name not in ("new-wall", "import")
            )
    return found


def crawl(client: Any, walls: list[Any]) -> Counter[str]:
    """Every address as the owner, over all walls and all their pieces."""
    found: Counter[str] = Counter()
    for name, url in addresses(walls):
        if name not in _ENDS:
            answer = client.get(url)
            found["requests"] += 1
            found["errors"] += answer.status_code >= 500
    return found


def forms(client: Any, walls: list[Any], many: int, dice: random.Random) -> Counter[str]:
    """So many forms full of nonsense, at any address, with any fields that the pages have.

    Most name the revision that counts, so that they are not put by for that, and some say what a
    person would in half of it.
    """
    from bench.models import Wall

    urls = [
        url
        for name, url in addresses(walls[:2])
        if name not in _ENDS and not url.endswith((".pdf", ".zip"))
    ]
    fields = {"base", "csv", "at", "x_mm", "y_mm", "left_mm", "top_mm"}
    for url in urls:
        if url.endswith(
            ("/fix/", "/survey/", "/load/", "/cut/", "/hang/", "/record/", "/mark/", "/new/")
        ):
            fields |= set(_NAMED.findall(client.get(url).content.decode(errors="replace")))
    found: Counter[str] = Counter()
    before = {wall.pk: wall.plan() for wall in walls[:2]}
    for n in range(many):
        if n % 100 == 0:  # much of what was there is gone by now
            for wall in Wall.objects.with_plans().filter(pk__in=before):
                wall.plan()
                wall.record(before[wall.pk], "As it was", wall.seen)
        said = {
            name: dice.choice(HOSTILE)
            for name in dice.sample(sorted(fields), dice.randrange(1, 25))
        }
        url = dice.choice(urls)
        if (wall := re.search(r"/walls/(\d+)/", url)) and dice.random() < 0.7:
            now = Wall.objects.with_plans().filter(pk=wall[1]).first()
            said["base"] = str(now.brought_key) if now else ""
        for name in sorted(said):
            if name != "base" and dice.random() < 0.4:
                said[name] = dice.choice(_USUAL)
        answer = client.post(
            url, said, headers={"HX-Request": "true"} if dice.random() < 0.5 else {}
        )
        found["forms"] += 1
        found["changed something"] += bool(wall) and answer.status_code < 400
        found["errors"] += answer.status_code >= 500
        found["refused"] += answer.status_code in (400, 404, 405, 409, 422)
    return found


def documents(client: Any, walls: list[Any], many: int, dice: random.Random) -> Counter[str]:
    """So many plans and jobs with something in them spoilt."""
    from django.core.files.uploadedfile import SimpleUploadedFile
    from django.urls import reverse

    from bench import archive
    from trade.plan import plan_file

    plans = [json.loads(plan_file.dump(wall.plan())) for wall in walls]
    jobs = [archive.written(wall.job) for wall in walls[:2]]
    found: Counter[str] = Counter()
    for n in range(many):
        raw = (
            json.dumps(_spoilt(dice.choice(plans), dice)).encode()
            if n % 2
            else _torn(dice.choice(jobs), dice)
        )
        answer = client.post(
            reverse("import"), {"plan": SimpleUploadedFile("x.json" if n % 2 else "x.zip", raw)}
        )
        found["documents"] += 1
        found["errors"] += answer.status_code >= 500
        found["taken"] += answer.status_code == 302
    return found


def _spoilt(plan: Any, dice: random.Random) -> Any:
    """Return the plan with one to four of its values made something else."""
    made = json.loads(json.dumps(plan))
    for _ in range(dice.randrange(1, 5)):
        at: Any = made
        while isinstance(at, dict | list) and at:
            key: Any = dice.choice(sorted(at)) if isinstance(at, dict) else dice.randrange(len(at))
            if not isinstance(at[key], dict | list) or not at[key] or dice.random() < 0.2:
                at[key] = dice.choice(
                    [*HOSTILE, None, -1, 1e308, 2**63, True, [], {}, [[]], at[key]]
                )
                break
            at = at[key]
    return made


def _torn(job: bytes, dice: random.Random) -> bytes:
    """Return the job file cut, or overwritten, or one of its parts spoilt."""
    if dice.random() < 0.4:
        at = dice.randrange(len(job))
        return job[:at] + (dice.randbytes(40) + job[at + 40 :] if dice.random() < 0.5 else b"")
    packed = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(job)) as old, zipfile.ZipFile(packed, "w") as new:
        for name in old.namelist():
            content = old.read(name)
            if name.endswith(".json") and dice.random() < 0.6:
                content = json.dumps(_spoilt(json.loads(content), dice)).encode()
            new.writestr(name, content)
    return packed.getvalue()


def main(posts: int, many: int) -> int:
    """Print the figures; 1 where something is not nought."""
    with tempfile.TemporaryDirectory() as data:
        os.environ |= {
            "GANCHO_DATA": data,
            "GANCHO_PEOPLE": "many",
            "DJANGO_SETTINGS_MODULE": "gancho.settings",
        }
        import django

        django.setup()
        return _attack(posts, many)


def _attack(posts: int, many: int) -> int:
    import logging

    from django.conf import settings
    from django.contrib.auth import get_user_model
    from django.core.management import call_command
    from django.test import Client

    from bench import demo
    from bench.models import Job, Share, Wall

    logging.disable(logging.CRITICAL)
    settings.ALLOWED_HOSTS = ["testserver"]
    settings.STORAGES = settings.STORAGES | {
        "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"}
    }
    call_command("migrate", verbosity=0)
    demo.load()
    people = {
        name: get_user_model().objects.create_user(name, password="a long enough one")
        for name in ("owner", "stranger", "helper")
    }
    Job.objects.update(owner=people["owner"])
    for job in Job.objects.all():
        Job.objects.filter(pk=job.pk).update(name=f"SECRET {job.name}"[:80])
    walls = list(Wall.objects.order_by("pk"))
    Share.objects.create(job=walls[0].job, helper=people["helper"])
    clients = {
        name: Client(raise_request_exception=False)
        for name in ("nobody", "stranger", "helper", "owner")
    }
    for name, person in people.items():
        clients[name].force_login(person)
    owner, dice = clients.pop("owner"), random.Random(13)
    found = {
        "access": access(clients, walls, walls[0].pk),
        "owner": crawl(owner, walls),
        "forms": forms(owner, walls, posts, dice),
        "documents": documents(owner, walls, many, dice),
    }
    for name, counted in found.items():
        print(
            f"  {name:<10} "
            + ", ".join(f"{count:,} {what}".replace(",", " ") for what, count in counted.items()),
            flush=True,
        )
    return int(
        any(
            counted[what]
            for counted in found.values()
            for what in ("errors", "private seen", "changed")
        )
    )


if __name__ == "__main__":
    said = [int(word) for word in sys.argv[1:3]]
    sys.exit(main(*(said + [POSTS, DOCUMENTS][len(said) :])))
