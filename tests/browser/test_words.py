"""The made-up language fits: no text of any stage is cut off, and none lies on another."""

from typing import Any

from bench import demo
from bench.models import Wall
from bench.stages.all import STAGES
from tests import words
from tests.browser.base import PHONE, BrowserCase
from tests.turns import in_turn

BADLY_SET = """() => {
    const shown = [], known = new Map();
    const look = e => {
        const how = getComputedStyle(e), crumb = e.matches('.crumb');
        return {
            clips: /hidden|clip/.test(how.overflow) && !crumb,
            scrolls: /auto|scroll/.test(how.overflow) || crumb,
            stays: /fixed|sticky/.test(how.position),
            room: e.getBoundingClientRect(),
        };
    };
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    const found = [];
    for (let node; node = walker.nextNode();) {
        const said = node.data.trim(), owner = node.parentElement;
        if (!said || owner.closest('script, style, option, title, textarea, [popover]')) continue;
        if (owner.closest('.visually-hidden, .visually-hidden-focusable')) continue;
        if (!owner.checkVisibility({visibilityProperty: true, opacityProperty: true})) continue;
        const range = document.createRange();
        range.selectNodeContents(node);
        for (const box of range.getClientRects()) {
            if (box.width < 1 || box.height < 1) continue;
            let {left, right, top, bottom} = box, layer = null;
            for (let e = owner; e && e !== document.body; e = e.parentElement) {
                if (!known.has(e)) known.set(e, look(e));
                const {clips, scrolls, stays, room} = known.get(e);
                if (clips && left < right && top < bottom &&
                    (right > room.right + 1 || left < room.left - 1 ||
                     bottom > room.bottom + 2 || top < room.top - 2))
                    found.push(`cut off by ${e.tagName}.${e.getAttribute('class')}: ${said}`);
                if (scrolls) {
                    [left, right] = [Math.max(left, room.left), Math.min(right, room.right)];
                    [top, bottom] = [Math.max(top, room.top), Math.min(bottom, room.bottom)];
                }
                if (stays) layer ??= e;
            }
            if (left < right && top < bottom)
                shown.push({said, box: {left, right, top, bottom}, owner, layer});
        }
    }
    for (const [i, a] of shown.entries()) for (const b of shown.slice(i + 1)) {
        if (a.owner === b.owner || a.layer !== b.layer) continue;
        const wide = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
        const high = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
        if (wide > 3 && high > 4) found.push(`${a.said} ON ${b.said}`);
    }
    if (document.documentElement.scrollWidth > innerWidth) found.push('wider than the screen');
    return [...new Set(found)];
}"""


class Fits(words.MadeUpCase, BrowserCase):
    """On a screen, and in one hand."""

    context_options: dict[str, Any] = {
        **BrowserCase.context_options,
        "locale": words.LANGUAGE,
    }

    maxDiff = None

    def test_every_stage_of_every_wall(self) -> None:
        demo.load()
        found = {}
        for n, wall in enumerate(Wall.objects.order_by("pk")):
            for k, stage in enumerate(STAGES):
                most = "story corner" in wall.name
                if not most and not in_turn(n, k):
                    continue
                tabs = stage.tabs if most else ()  # a look is the same for every wall
                for look in ("", *(tab.name for tab in tabs)):
                    self.page.goto(f"/walls/{wall.pk}/{stage.name}/?look={look}")
                    self.settled()
                    for size in (BrowserCase.context_options, PHONE):
                        self.page.set_viewport_size(size["viewport"])
                        if bad := self.page.evaluate(BADLY_SET):
                            found[f"{wall} {stage.name} {look} {size}"] = bad
        self.assertEqual(found, {})
        self.assertGreaterEqual(Wall.objects.count(), 6)
