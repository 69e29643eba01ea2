// The workbench's hands: dragging, nudging, putting up, keys. htmx asks the server, one request at
// a time, and morphs the page into the answer: focus, scroll, and what is open or being typed stay
// because their nodes stay.
import { Drag } from "./drag.js";

const bench = () => document.getElementById("bench");
const sheet = () => document.getElementById("sheet");

// What the person did since the page was drawn outlives a morph: what is open, what is typed and
// not sent yet.
const { callbacks } = Idiomorph.defaults;
Idiomorph.defaults.ignoreActiveValue = true;
callbacks.beforeAttributeUpdated = (name, node) =>
  name !== "data-typed" &&
  !(name === "open" && node.matches("#panel details")) &&
  !(["value", "checked", "selected"].includes(name) && node.closest("[data-typed]"));
callbacks.beforeNodeMorphed = (node) => !node.matches?.("#catch, [data-lazy]");
document.addEventListener(
  "input",
  ({ target }) => target.form?.matches("[data-autosave]") && (target.dataset.typed = ""),
);
document.addEventListener(
  "change",
  (event) => event.target.dataset.hold && event.stopPropagation(),
  true,
);

document.addEventListener("htmx:configRequest", ({ detail }) => {
  const { elt, parameters, boosted } = detail;
  // it may have changed while it waited its turn
  if (boosted && elt.matches("a")) detail.path = elt.getAttribute("href");
  if (detail.verb !== "post" || !bench()) return;
  const button = detail.triggeringEvent?.submitter; // it may stand outside its form
  if (button?.name) parameters.set(button.name, button.value);
  const { base, stage, piece, look } = bench().dataset;
  parameters.set("base", base);
  for (const [name, value] of Object.entries({ stage, piece, look }))
    if (!parameters.has(name)) parameters.set(name, value);
  // it is sent now
  for (const field of elt.querySelectorAll("[data-typed]")) delete field.dataset.typed;
});
/** On a phone the stages may be wider than the screen: show the one that is open. */
function stageInView() {
  const notch = document.querySelector(".notch[aria-current]");
  if (notch) notch.parentElement.scrollLeft = notch.offsetLeft - notch.offsetWidth;
}
document.addEventListener("htmx:afterSettle", ({ target }) => {
  if (target !== bench()) return;
  document.title = bench().dataset.title;
  stageInView();
  arm(null);
});
stageInView();
document.addEventListener(
  "htmx:afterSwap",
  ({ target }) => target.id === "term" && target.showPopover(),
);
document.addEventListener("htmx:responseError", () =>
  trouble(),
);
document.addEventListener(
  "htmx:beforeSwap",
  ({ detail }) => detail.xhr.status === 401 && trouble(detail.xhr.responseText),
);
document.addEventListener("htmx:sendError", () =>
  trouble("offline"),
);

/** Say what went wrong: which of the page's own sentences, or what the server answered. */
function trouble(what = "failed") {
  const box = document.getElementById("trouble");
  box.textContent = box.dataset[what] ?? what;
  box.hidden = false;
  clearTimeout(trouble.timer);
  trouble.timer = setTimeout(() => (box.hidden = true), 6000);
}

/** Post a change of something on the wall; it says in data-post where its changes go. */
function post(movable, what, values) {
  const about = movable.dataset.key ? { piece: movable.dataset.key } : {};
  return htmx.ajax("POST", address(movable, what), {
    source: "#bench",
    values: { ...values, ...about },
  });
}
const address = (movable, what) => `${bench().dataset.wall}${movable.dataset.post}/${what}/`;
const pieceAt = (key) => document.getElementById(`piece-${key}`);

// An opened check points at its part on the wall.
document.addEventListener(
  "toggle",
  (event) => {
    const row = event.target.closest?.(".check-row");
    if (!row) return;
    const part = row.dataset.support
      ? `[data-support="${row.dataset.support}"]`
      : ".shape-board, .shape-face, .shape-wood";
    for (const lit of document.querySelectorAll(".pointed")) lit.classList.remove("pointed");
    if (event.target.open)
      document.querySelector(`.piece.chosen ${part}`)?.classList.add("pointed");
  },
  true,
);

// Putting up: choose a kind, then tap the wall.
let armed = null;
function arm(kind) {
  armed = kind;
  const form = document.getElementById("put-up");
  if (!form) return;
  document.getElementById("put-up-hint").hidden = !kind;
  bench().classList.toggle("placing", Boolean(kind));
  if (kind) sheet().scrollIntoView({ block: "nearest" }); // on a phone it may be out of sight
  for (const button of form.querySelectorAll(".kind"))
    button.setAttribute("aria-pressed", String(button.value === kind));
  const more = form.querySelector("#more-kinds");
  if (more && more.value !== kind) more.value = "";
}
function putUp(kind, place) {
  const form = document.getElementById("put-up");
  arm(null);
  const values = Object.fromEntries(new FormData(form));
  const where = place ? { x_mm: place.x, top_mm: place.y } : {};
  return htmx.ajax("POST", form.action, {
    source: "#bench",
    values: { ...values, ...where, kind },
  });
}
document.addEventListener(
  "change",
  ({ target }) => target.matches?.("#more-kinds") && arm(target.value || null),
);
document.addEventListener("click", (event) => {
  const stop = event.target.closest?.(".stop");
  if (stop) {
    const asked = stop.closest("[hx-get]");
    htmx.trigger(asked, "htmx:abort");
    asked.textContent = document.getElementById("busy").dataset.stopped;
  }
  if (event.target.closest?.("#busy button")) {
    htmx.trigger(document.body, "htmx:abort");
    // what the server had kept by then is shown
    htmx.ajax("GET", location.href, { source: "#bench" });
  }
  const kind = event.target.closest?.("#put-up .kind");
  if (kind) {
    event.preventDefault();
    const what = kind.value === "thing" && kind.closest("details").querySelector("select");
    if (what && !what.value) return what.focus();
    if (armed === kind.value && event.detail === 0) putUp(kind.value);
    else arm(armed === kind.value ? null : kind.value);
    kind.closest("details")?.removeAttribute("open");
  }
  for (const kinds of document.querySelectorAll("#put-up details[open]"))
    if (!kinds.contains(event.target)) kinds.removeAttribute("open");
  if (event.target.closest?.("#show-keys")) document.getElementById("keys").showModal();
});

// Dragging, by mouse, finger or pen.
let drag = null;
document.addEventListener("pointerdown", (event) => {
  if (!event.target.closest?.("#sheet") || event.button > 0 || !bench()) return;
  const piece = event.target.closest(".movable");
  if (armed) putUp(armed, Drag.place(bench(), sheet(), event));
  else if (piece) {
    drag = new Drag(bench, piece, event, address(piece, "move"), (values) =>
      post(piece, "move", values),
    );
    // the piece itself is drawn anew under the finger
    document.documentElement.setPointerCapture(event.pointerId);
    piece.focus({ preventScroll: true });
  } else return;
  event.preventDefault();
});
// a finger on a piece drags it; anywhere else it scrolls the page
document.addEventListener(
  "touchstart",
  (event) => event.target.closest?.(".movable") && event.preventDefault(),
  { passive: false },
);
document.addEventListener("pointermove", (event) => drag?.move(event));
document.addEventListener("pointercancel", () => {
  drag?.cancel();
  drag = null;
});
document.addEventListener("pointerup", (event) => {
  const ended = drag;
  drag = null;
  if (ended && !ended.drop(event)) choose(ended.piece);
});

/** A piece that was tapped is worked on; a thing on the wall only gets the keys. */
function choose(movable) {
  document.getElementById(`choose-${movable?.dataset.key}`)?.click();
  movable?.focus({ preventScroll: true });
}

/** The first thing to put on the wall: in the survey armed at once, elsewhere asked for. */
function chooseWhat(event) {
  event.preventDefault();
  const asking = document.getElementById(
    event.shiftKey ? "more-mounts" : "hang-something",
  )?.parentElement;
  if (!asking)
    return arm(document.querySelectorAll("#put-up .kind")[event.shiftKey ? 1 : 0]?.value ?? null);
  asking.open = true;
  asking.querySelector("select, button")?.focus();
}

// Keys.
const ARROWS = { ArrowLeft: "left", ArrowRight: "right", ArrowUp: "up", ArrowDown: "down" };
document.addEventListener("keydown", (event) => {
  if (!bench() || document.querySelector("dialog[open]")) return;
  const typing = event.target.matches("input, select, textarea");
  const letter = event.key.toLowerCase();
  if ((event.ctrlKey || event.metaKey) && letter === "z" && !typing) {
    event.preventDefault();
    document.getElementById(event.shiftKey ? "redo" : "undo").click();
    return;
  }
  if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
  const piece = event.target.closest?.(".movable");
  const moved = piece ?? (event.target === document.body ? pieceAt(bench().dataset.piece) : null);
  if (event.key === "Escape") {
    drag?.cancel();
    drag = null;
    arm(null);
  } else if (event.key === "Enter" && armed && !event.target.closest(".kind")) putUp(armed);
  else if (ARROWS[event.key] && moved) {
    event.preventDefault();
    post(moved, "move", { nudge: ARROWS[event.key], ...(event.shiftKey ? { far: 1 } : {}) });
  } else if (piece && (event.key === "Enter" || event.key === " ")) {
    event.preventDefault();
    choose(piece);
  } else if (piece && event.key === "Delete") post(piece, "remove", {});
  else if (letter === "p") chooseWhat(event);
  else if (event.key === "?") document.getElementById("keys").showModal();
  else if (/^[1-9]$/.test(event.key))
    document.querySelectorAll(".stage-nav .notch")[event.key - 1]?.click();
});
