// The workbench's hands: dragging, nudging, putting up, keys. htmx asks the server, one request at
// a time, and morphs the page into the answer: focus, scroll, and what is open or being typed stay
// because their nodes stay.
import { Drag } from "./drag.js";

const on = document.addEventListener.bind(document);
const element = (id) => document.getElementById(id);
const bench = () => element("bench");

// What the person did since the page was drawn outlives a morph: what is open, what is typed and
// not sent yet.
const { callbacks } = Idiomorph.defaults;
const KEPT = ":is(input, select, textarea):focus, [data-typed]";
callbacks.beforeAttributeUpdated = (name, node) =>
  name !== "data-typed" &&
  !(name === "open" && node.matches("#panel details")) &&
  !(["value", "checked", "selected"].includes(name) && node.closest(KEPT));
callbacks.beforeNodeMorphed = (node) => !node.matches?.("#catch, [data-lazy]");
on("input", ({ target }) => target.form?.matches("[data-autosave]") && (target.dataset.typed = ""));

on("htmx:configRequest", ({ detail }) => {
  const { elt, parameters, boosted, triggeringEvent } = detail;
  // it may have changed while it waited its turn
  if (boosted && elt.matches("a")) detail.path = elt.getAttribute("href");
  const button = triggeringEvent?.submitter; // it may stand outside its form
  if (button?.name) parameters.set(button.name, button.value);
  for (const field of elt.querySelectorAll("[data-typed]")) delete field.dataset.typed; // sent now
});
on("htmx:afterSettle", ({ target }) => target === bench() && drawn());
on("htmx:afterSwap", ({ target }) => target.id === "term" && target.showPopover());
on("htmx:responseError", () => trouble("failed"));
on("htmx:sendError", () => trouble("offline"));

/** Say what went wrong, in the page's own words. */
function trouble(what) {
  element("trouble").replaceChildren(element(what).content.cloneNode(true));
}

function drawn() {
  const notch = document.querySelector(".notch[aria-current]");
  // on a phone the stages may be wider than the screen
  if (notch) notch.parentElement.scrollLeft = notch.offsetLeft - notch.offsetWidth;
  arm(null);
}

/** Post a change of something on the wall; it says in data-post where its changes go. */
function post(movable, what, values) {
  const about = movable.dataset.key ? { piece: movable.dataset.key } : {};
  return htmx.ajax("POST", address(movable, what), {
    source: "#here",
    values: { ...values, ...about },
  });
}
const address = (movable, what) => `${bench().dataset.wall}${movable.dataset.post}/${what}/`;

// An opened check points at its part on the wall; an opened list takes the keys.
const opened = ({ target }) => {
  if (target.open && target.matches(".kinds")) target.querySelector("select, button").focus();
  const row = target.closest?.(".check-row");
  if (!row) return;
  for (const lit of document.querySelectorAll(".pointed")) lit.classList.remove("pointed");
  const { support } = row.dataset;
  const part = support ? `[data-support="${support}"]` : ".shape-board, .shape-face, .shape-wood";
  if (target.open) document.querySelector(`.piece.chosen ${part}`)?.classList.add("pointed");
};
on("toggle", opened, true);

// Putting up: choose a kind, then tap the wall.
let armed = null;
function arm(kind) {
  armed = kind;
  const form = element("put-up");
  if (!form) return;
  bench().classList.toggle("placing", Boolean(kind));
  if (kind) element("sheet").scrollIntoView({ block: "nearest" }); // a phone may not show it
  for (const button of form.querySelectorAll(".kind"))
    button.setAttribute("aria-pressed", String(button.value === kind));
  const more = element("more-kinds");
  if (more && more.value !== kind) more.value = "";
}
function putUp(place = {}) {
  const values = { kind: armed, ...place };
  arm(null);
  return htmx.ajax("POST", element("put-up").action, { source: "#put-up", values });
}
on("change", ({ target }) => target.id === "more-kinds" && arm(target.value || null));
on("click", (event) => {
  const { target, detail } = event;
  if (target.closest("#busy button")) {
    htmx.trigger(document.body, "htmx:abort");
    htmx.ajax("GET", location.href, { source: "#bench" }); // what had been kept by then
  }
  const kind = target.closest("#put-up .kind");
  if (kind) {
    event.preventDefault();
    const missing = kind.closest("details")?.querySelector(":invalid");
    if (missing) return missing.focus();
    if (armed === kind.value && detail === 0) putUp();
    else arm(armed === kind.value ? null : kind.value);
  }
  for (const list of document.querySelectorAll("#put-up details[open]"))
    if (kind || !list.contains(target)) list.open = false;
});

// Dragging, by mouse, finger or pen.
let drag = null;
on("pointerdown", (event) => {
  if (!event.target.closest?.("#sheet") || event.button > 0 || !bench()) return;
  const piece = event.target.closest(".movable");
  if (armed) putUp(Drag.place(event));
  else if (piece)
    drag = new Drag(piece, event, address(piece, "move"), (place) => post(piece, "move", place));
  else return;
  event.preventDefault();
});
// a finger on a piece drags it; anywhere else it scrolls the page
const held = (event) => event.target.closest?.(".movable") && event.preventDefault();
on("touchstart", held, { passive: false });
on("pointermove", (event) => drag?.move(event));
on("pointercancel", letGo);
on("pointerup", (event) => {
  const ended = drag;
  drag = null;
  if (ended && !ended.drop(event)) choose(ended.piece);
});
function letGo() {
  arm(null);
  drag?.cancel();
  drag = null;
}

/** A piece that was tapped is worked on; a thing on the wall only gets the keys. */
function choose(movable) {
  element(`choose-${movable?.dataset.key}`)?.click();
  movable?.focus({ preventScroll: true });
}

// Keys: most press what says so in aria-keyshortcuts.
const ARROWS = { ArrowLeft: "left", ArrowRight: "right", ArrowUp: "up", ArrowDown: "down" };
on("keydown", (event) => {
  const { target, key, shiftKey, ctrlKey, metaKey, altKey } = event;
  if (!bench() || altKey || target.matches("input, select, textarea")) return;
  const capital = key.toUpperCase();
  const shifted = shiftKey && capital !== key.toLowerCase();
  const keys = `${ctrlKey || metaKey ? "Control+" : ""}${shifted ? "Shift+" : ""}${capital}`;
  const shortcut = document.querySelector(`[aria-keyshortcuts="${CSS.escape(keys)}"]`);
  const piece = target.closest(".movable");
  const chosen = target === document.body && element(`piece-${bench().dataset.piece}`);
  if (shortcut) shortcut.click();
  else if (key === "Escape") return letGo();
  else if (ctrlKey || metaKey) return;
  else if (ARROWS[key] && (piece || chosen))
    post(piece || chosen, "move", {
      nudge: ARROWS[key],
      ...(shiftKey ? { far: 1 } : {}),
      ...(element("catch")?.checked && !event.altKey ? { catch: 1 } : {}),
    });
  else if (key === "Enter" && armed && !target.closest(".kind")) putUp();
  else if (piece && (key === "Enter" || key === " ")) choose(piece);
  else if (piece && key === "Delete") post(piece, "remove", {});
  else return;
  event.preventDefault();
});

drawn();
