// The workbench's hands: dragging, nudging, putting up, keys. The server judges; this only moves and asks.
import { Drag } from "./drag.js";

const BUSY_MS = 600; // what takes longer says so
const bench = () => document.getElementById("bench");
const token = () => JSON.parse(document.body.getAttribute("hx-headers"))["x-csrftoken"];

// One question at a time: each change names the revision it was made on, so they must follow one another.
let queue = Promise.resolve();
const inTurn = (what) => (queue = queue.catch(() => false).then(what));

/** Post to the server and lay what it answers on the bench. Resolves to true when the server took it. */
export function post(url, values) {
  return inTurn(() => send(url, values));
}

/** Go to another stage or piece: the same page with another bench. */
function visit(where, remember = "pushState") {
  return inTurn(async () => {
    const url = typeof where === "function" ? where() : where;
    const answer = await ask(url, { headers: { "HX-Request": "true", "HX-Target": "bench" } });
    if (!answer) return false;
    if (remember) history[remember](null, "", url);
    lay(await answer.text());
    document.title = bench().dataset.title;
    return true;
  });
}

async function send(url, values) {
  const said = typeof values === "function" ? values() : values;
  if (!said) return false; // what it was about is gone
  const body = new URLSearchParams({ stage: bench().dataset.stage, piece: bench().dataset.piece, look: bench().dataset.look, seen: bench().dataset.piece, touched: bench().dataset.touched ?? "", ...said, base: bench().dataset.base });
  const headers = { "HX-Request": "true", "X-CSRFToken": token() };
  const answer = await patiently((signal) => ask(url, { method: "POST", body, headers, signal }));
  if (!answer) return false;
  lay(await answer.text(), said);
  return answer.ok;
}

/** What takes long says so, and can be stopped; what the server had kept by then is shown. */
async function patiently(asking) {
  const patience = new AbortController();
  const box = document.getElementById("busy");
  const timer = setTimeout(() => (box.hidden = false), BUSY_MS);
  const stop = () => patience.abort();
  box.querySelector("button").addEventListener("click", stop, { once: true });
  const answer = await asking(patience.signal);
  clearTimeout(timer);
  box.hidden = true;
  box.querySelector("button").removeEventListener("click", stop);
  if (patience.signal.aborted) visit(location.href, null);
  return answer;
}

/** Fetch; null, with a word to the person, when there is nothing to lay on the bench. */
async function ask(url, options) {
  try {
    const answer = await fetch(url, options);
    if (answer.redirected && new URL(answer.url).pathname === "/people/sign-in/") {
      trouble("You are signed out: nothing was changed. Sign in again and go on.");
      return null;
    }
    if (answer.ok || answer.status === 422 || answer.status === 409) return answer;
    trouble("That did not work, and nothing was changed. Load the page again and go on.");
  } catch (error) {
    if (error.name === "AbortError") return null;
    trouble("No connection: nothing was changed. Try again when it is back.");
  }
  return null;
}

/** Put a new bench in place of the old one. The focus, what is open, and what was typed since asking stay. */
function lay(html, sent) {
  const old = bench();
  const focused = document.activeElement?.id;
  const scrolled = document.getElementById("panel").scrollTop;
  const open = openDetails();
  const catching = document.getElementById("catch").checked;
  const typed = typedSince(sent);
  const fresh = document.createRange().createContextualFragment(html).getElementById("bench");
  if (!fresh) return;
  if (fresh.dataset.live) return follow(fresh);
  old.replaceWith(fresh);
  htmx.process(fresh);
  const same = old.dataset.stage === fresh.dataset.stage && old.dataset.piece === fresh.dataset.piece;
  if (same) {
    document.getElementById("panel").scrollTop = scrolled;
    reopen(open);
    retype(typed);
  }
  document.getElementById("catch").checked = catching;
  if (focused) document.getElementById(focused)?.focus({ preventScroll: true });
  arm(null);
}

// While a piece is dragged the server says only what differs from the bench on which it was taken hold of.
let kept = {}; // that bench's list of checks and its section
function follow(fresh) {
  if (kept.of !== bench()) kept = { of: bench(), rows: [...(document.getElementById("checks")?.children ?? [])], section: document.getElementById("section") };
  for (const row of fresh.querySelectorAll("li[data-kept]")) row.replaceWith(kept.rows[row.dataset.kept]);
  fresh.querySelector("section[data-kept]")?.replaceWith(kept.section ?? "");
  for (const part of fresh.querySelectorAll(":scope > [id], :scope > svg > [id]")) document.getElementById(part.id)?.replaceWith(part);
  bench().dataset.touched = fresh.dataset.touched;
}

// Forms that save themselves on every change.
const autosaving = () => document.querySelector("form.autosave");
const fieldsOf = (form) => [...form.elements].filter((field) => field.name && field.type !== "hidden");
const valueOf = (field) => (field.type === "checkbox" ? field.checked : field.value);

document.addEventListener("change", (event) => {
  if (event.target.form?.matches("form.autosave") && !event.target.dataset.hold) save();
  if (event.target.matches?.("#more-kinds")) arm(event.target.value || null);
});
document.addEventListener("submit", (event) => {
  const form = event.target;
  if (!form.matches("form.autosave, form.asks")) return;
  event.preventDefault();
  if (form.matches(".autosave")) save();
  else post(form.action, Object.fromEntries(new FormData(form, event.submitter)));
});

function save() {
  return post(autosaving().action, () => autosaving() && Object.fromEntries(new FormData(autosaving())));
}

/** Fields whose value is no longer what was sent (or, when the form was not sent, what the server had put there). */
function typedSince(sent) {
  const form = autosaving();
  if (!form) return [];
  const whole = sent && fieldsOf(form).every((field) => field.type === "checkbox" || field.name in sent);
  return fieldsOf(form)
    .filter((field) => (whole ? valueOf(field) !== (field.type === "checkbox" ? field.name in sent : sent[field.name]) : field === document.activeElement && field.value !== field.defaultValue))
    .map((field) => ({ name: field.name, value: valueOf(field), active: field === document.activeElement }));
}

function retype(typed) {
  const form = autosaving();
  let again = false;
  for (const { name, value, active } of form ? typed : []) {
    const field = fieldsOf(form).find((each) => each.name === name);
    if (!field) continue;
    if (field.type === "checkbox") field.checked = value;
    else field.value = value;
    if (active) field.addEventListener("blur", () => field.isConnected && save(), { once: true });
    else again = true;
  }
  if (again) save();
}

function openDetails() {
  const panel = document.getElementById("panel");
  return panel ? [...panel.querySelectorAll("details[open]")].map((d) => d.id || d.closest("[data-code]")?.dataset.code) : [];
}

function reopen(names) {
  for (const name of names.filter(Boolean)) {
    const found = document.getElementById(name) ?? document.querySelector(`[data-code="${name}"] details`);
    if (found instanceof HTMLDetailsElement) found.open = true;
  }
}

function trouble(words) {
  const box = document.getElementById("trouble");
  box.textContent = words;
  box.hidden = false;
  clearTimeout(trouble.timer);
  trouble.timer = setTimeout(() => (box.hidden = true), 6000);
  return false;
}

// What can be moved on the wall, pieces and things alike, says in data-post where its changes go.
const address = (movable, what) => `${location.pathname.match(/^.*?\/walls\/\d+\//)[0]}${movable.dataset.post}/${what}/`;
const pieceAt = (key) => document.getElementById(`piece-${key}`);
const about = (movable) => (movable.dataset.key ? { piece: movable.dataset.key } : {});

// A link that was drawn anew between press and release gets no click: it is still the one that was pressed.
let pressed = null;
document.addEventListener("pointerdown", (event) => (pressed = event.target.closest?.("a.visits")), true);
document.addEventListener("pointerup", (event) => {
  const under = pressed && !pressed.isConnected ? document.elementFromPoint(event.clientX, event.clientY)?.closest("a.visits") : null;
  if (under && under.id === pressed.id) go(under);
  pressed = null;
});

/** Go where a link leads. A stage is for the piece that is chosen when its turn comes, not when it was clicked. */
function go(link) {
  visit(() => (link.matches(".notch") && bench().dataset.piece ? `${link.pathname}?piece=${bench().dataset.piece}` : link.href));
}

document.addEventListener("click", (event) => {
  const link = event.target.closest?.("a.visits");
  if (!link || event.ctrlKey || event.metaKey || event.shiftKey) return;
  event.preventDefault();
  go(link);
});
addEventListener("popstate", () => (bench() ? visit(location.href, null) : location.reload()));

// An opened check points at its part on the wall.
document.addEventListener("toggle", (event) => {
  const row = event.target.closest?.(".check-row");
  if (!row) return;
  const part = row.dataset.support ? `[data-support="${row.dataset.support}"]` : ".shape-board, .shape-face, .shape-wood";
  for (const lit of document.querySelectorAll(".pointed")) lit.classList.remove("pointed");
  if (event.target.open) document.querySelector(`.piece.chosen ${part}`)?.classList.add("pointed");
}, true);

// Putting up: choose a kind, then tap the wall.
let armed = null;
function arm(kind) {
  armed = kind;
  const form = document.getElementById("put-up");
  if (!form) return;
  document.getElementById("put-up-hint").hidden = !kind;
  bench().classList.toggle("placing", Boolean(kind));
  if (kind) document.getElementById("sheet").scrollIntoView({ block: "nearest" }); // on a phone it may be out of sight
  for (const button of form.querySelectorAll(".kind")) button.setAttribute("aria-pressed", String(button.value === kind));
  const more = form.querySelector("#more-kinds");
  if (more && more.value !== kind) more.value = "";
}
function putUp(kind, x, top) {
  const { action } = document.getElementById("put-up");
  arm(null);
  const typed = Object.fromEntries(new FormData(document.getElementById("put-up")));
  return post(action, { ...typed, kind, x_mm: x, top_mm: top });
}
function putUpInTheMiddle(kind) {
  const { wallWidth, wallHeight } = bench().dataset;
  return putUp(kind, wallWidth / 2, wallHeight * 0.6);
}
document.addEventListener("click", (event) => {
  const stop = event.target.closest?.(".stop");
  if (stop) {
    const asked = stop.closest("[hx-get]");
    htmx.trigger(asked, "htmx:abort");
    asked.textContent = "Stopped. Choose it again to go on.";
  }
  const kind = event.target.closest?.("#put-up .kind");
  if (kind) {
    event.preventDefault();
    const what = kind.value === "thing" && kind.closest("details").querySelector("select");
    if (what && !what.value) return what.focus();
    if (armed === kind.value && event.detail === 0) putUpInTheMiddle(kind.value);
    else arm(armed === kind.value ? null : kind.value);
    kind.closest("details")?.removeAttribute("open");
  }
  for (const kinds of document.querySelectorAll("#put-up details[open]"))
    if (!kinds.contains(event.target)) kinds.removeAttribute("open");
  if (event.target.closest?.("#show-keys")) document.getElementById("keys").showModal();
});

// Dragging, by mouse, finger or pen. The listeners live on the document: the bench is replaced under them.
let drag = null;
document.addEventListener("pointerdown", (event) => {
  const sheet = event.target.closest?.("#sheet");
  if (!sheet || event.button > 0 || !bench()) return;
  if (armed) {
    const place = Drag.place(bench(), sheet, event);
    event.preventDefault();
    putUp(armed, place.x, place.y);
    return;
  }
  const piece = event.target.closest(".movable");
  if (!piece) return;
  drag = new Drag(bench, piece, event, (values) => post(address(piece, "move"), { ...values, ...about(piece) }));
  event.preventDefault();
  document.documentElement.setPointerCapture(event.pointerId); // the piece itself is drawn anew under the finger
  piece.focus({ preventScroll: true });
});
// a finger on a piece drags it; anywhere else it scrolls the page
document.addEventListener("touchstart", (event) => event.target.closest?.(".movable") && event.preventDefault(), { passive: false });
document.addEventListener("pointermove", (event) => drag?.move(event));
document.addEventListener("pointercancel", () => { drag?.cancel(); drag = null; });
document.addEventListener("pointerup", async (event) => {
  if (!drag) return;
  const ended = drag;
  drag = null;
  if (await ended.drop(event)) return;
  choose(ended.piece);
});

/** A piece that was tapped is worked on; a thing on the wall only gets the keys. */
function choose(movable) {
  const key = movable?.dataset.key;
  if (!key) return movable?.focus({ preventScroll: true });
  visit(`${location.pathname}?piece=${key}`, "replaceState").then(() => pieceAt(key)?.focus({ preventScroll: true }));
}

/** The first thing to put on the wall: in the survey armed at once, elsewhere asked for. */
function chooseWhat(event) {
  event.preventDefault();
  const asking = document.getElementById(event.shiftKey ? "more-mounts" : "hang-something")?.parentElement;
  if (!asking) return arm(document.querySelectorAll("#put-up .kind")[event.shiftKey ? 1 : 0]?.value ?? null);
  asking.open = true;
  asking.querySelector("select, button")?.focus();
}

// Keys.
const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
function nudge(movable, [dx, dy], far) {
  const step = bench().dataset.units === "imperial" ? (far ? 25.4 : 25.4 / 16) : far ? 10 : 1;
  post(address(movable, "move"), () => {
    const now = document.getElementById(movable.id);
    if (!now) return null;
    return { ...about(now), left_mm: +now.dataset.left + dx * step, top_mm: +now.dataset.top + dy * step };
  });
}
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
  if (event.key === "Escape") { drag?.cancel(); drag = null; arm(null); }
  else if (event.key === "Enter" && armed && !event.target.closest(".kind")) putUpInTheMiddle(armed);
  else if (ARROWS[event.key] && (piece || (event.target === document.body && pieceAt(bench().dataset.piece)))) {
    event.preventDefault();
    nudge(piece ?? pieceAt(bench().dataset.piece), ARROWS[event.key], event.shiftKey);
  } else if (piece && (event.key === "Enter" || event.key === " ")) { event.preventDefault(); choose(piece); }
  else if (piece && event.key === "Delete") post(address(piece, "remove"), {});
  else if (letter === "p") chooseWhat(event);
  else if (event.key === "?") document.getElementById("keys").showModal();
  else if (/^[1-9]$/.test(event.key)) document.querySelectorAll(".stage-nav .notch")[event.key - 1]?.click();
});
