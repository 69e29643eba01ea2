// At the wall: one step a screen. What is tapped is kept on the phone first, then sent; a lost
// connection loses nothing.
const AGAIN_MS = 4000; // until what is kept is sent once more
const STAYS = [
  "no_wood",
  "hard",
  "metal",
  "crumbles",
  "stud_off",
  "lining",
  "undo",
  "cure",
  "again",
]; // the server says what comes next

const root = () => document.getElementById("hang");
const steps = () => [...root().querySelectorAll(".step")];
const shown = () => steps().find((step) => !step.hidden);
const token = () => JSON.parse(document.body.getAttribute("hx-headers"))["x-csrftoken"];
const place = `gancho-told:${location.pathname}`;

/** What was told and is not sent yet, the oldest first. */
const kept = () => JSON.parse(localStorage.getItem(place) || "[]");
function keep(all) {
  if (all.length) localStorage.setItem(place, JSON.stringify(all));
  else localStorage.removeItem(place);
  tell(all.length);
}

/** Say how many taps wait to be sent, or which of the page's own sentences. */
function tell(many, which = many === 1 ? "one" : "several") {
  const box = document.getElementById("kept");
  box.textContent = many === 0 ? "" : box.dataset[which].replace("{n}", many);
  box.hidden = !box.textContent;
}

/** Show one step: its holes ringed, its heading read out. */
function show(step, focus = true) {
  for (const each of steps()) each.hidden = each !== step;
  const numbers = step.dataset.marks.trim().split(/\s+/);
  for (const ring of root().querySelectorAll(".about"))
    ring.classList.toggle("now", numbers.includes(ring.dataset.number));
  for (const notch of root().querySelectorAll(".notches li"))
    notch.classList.toggle("notch-now", notch.dataset.key === step.dataset.key);
  document.getElementById("step-number").textContent = steps().indexOf(step) + 1;
  history.replaceState(null, "", `?step=${step.dataset.key}`);
  if (focus) step.querySelector("h2").focus({ preventScroll: true });
  window.scrollTo(0, 0);
}

function go(by) {
  const all = steps();
  const to = all[all.indexOf(shown()) + by];
  if (to) show(to);
}

/** The step is done as far as the phone can tell: on to the next that is not. */
function onward() {
  const now = shown();
  now.classList.add("step-done");
  root()
    .querySelector(`.notches li[data-key="${CSS.escape(now.dataset.key)}"]`)
    ?.classList.add("notch-made");
  const all = steps();
  const to = all.slice(all.indexOf(now) + 1).find((step) => !step.classList.contains("step-done"));
  if (to) show(to);
}

const name = () =>
  crypto.randomUUID ? crypto.randomUUID() : `${Date.now()}-${Math.random().toString(36).slice(2)}`;

/**
 * What an undo takes back: the last tap that is kept here, else what the page knew last, so many
 * undos ago.
 */
function meant(said) {
  if (said.what !== "undo") return {};
  const all = kept();
  const undone = all.map((each) => each.undoes);
  const mine = all.filter((each) => each.what !== "undo" && !undone.includes(each.uid)).at(-1);
  return mine
    ? { undoes: mine.uid }
    : { back: all.filter((each) => each.what === "undo" && !each.undoes).length };
}

document.addEventListener("submit", (event) => {
  const form = event.target;
  if (!form.matches("form.tell")) return;
  event.preventDefault();
  const said = Object.fromEntries(new FormData(form, event.submitter));
  delete said.csrfmiddlewaretoken;
  keep([...kept(), { ...said, ...meant(said), uid: name(), at: Date.now() }]);
  if (!STAYS.includes(said.what)) onward();
  send();
});

document.addEventListener("click", (event) => {
  const link = event.target.closest("[data-go]");
  if (!link) return;
  event.preventDefault();
  go(Number(link.dataset.go));
});

let sending = null;
/** Send what is kept, one after the other; lay down what the server says once nothing is left. */
function send() {
  sending ??= deliver().finally(() => (sending = null));
  return sending;
}

async function deliver() {
  let html = "";
  let last = null;
  while (kept().length) {
    [last] = kept();
    let answer;
    try {
      answer = await fetch(root().dataset.told, {
        method: "POST",
        body: new URLSearchParams(last),
        headers: { "X-CSRFToken": token(), "X-Part": "steps" },
      });
    } catch {
      tell(kept().length);
      setTimeout(send, AGAIN_MS);
      return;
    }
    if (answer.status === 410) {
      localStorage.setItem(`${place}:left`, JSON.stringify(kept()));
      keep([]);
      tell(1, "gone");
      return;
    }
    if (!answer.ok && answer.status !== 422) {
      tell(kept().length, "refused");
      return;
    }
    html = await answer.text();
    if (answer.redirected || !html.includes('id="hang"')) {
      tell(kept().length, "signedOut");
      return;
    }
    keep(kept().filter((each) => each.uid !== last.uid));
  }
  if (html) lay(html, last);
}

/**
 * Put the server's steps in place of the old ones, and stay where the person is, unless the plan
 * has something to say.
 */
function lay(html, last) {
  const here = shown()?.dataset.key;
  const typed = [...shown().querySelectorAll("input:not([type=hidden]), select")].map((field) => [
    field.id || field.name,
    field.value,
  ]);
  const open = Boolean(shown().querySelector("details[open]"));
  const fresh = document.createRange().createContextualFragment(html).getElementById("hang");
  root().replaceWith(fresh);
  const theirs = steps().find((step) => step.dataset.key === fresh.dataset.at);
  const mine = steps().find((step) => step.dataset.key === here);
  const speaks = fresh.dataset.trouble || STAYS.includes(last.what);
  // it was told before the page was there
  const over = mine?.classList.contains("step-done") && last.step === here;
  show(speaks || over || !mine ? theirs || steps()[0] : mine, !speaks);
  if (fresh.querySelector(".message") && mine) {
    shown().querySelector("details")?.toggleAttribute("open", open);
    for (const [id, value] of typed)
      if (document.getElementById(id)) document.getElementById(id).value = value;
  }
  if (speaks) document.querySelector("#stop, .message")?.focus?.();
  when();
}

/** Times in the phone's own clock. */
function when() {
  for (const time of document.querySelectorAll("time[data-until]")) {
    time.textContent = new Date(time.dataset.until).toLocaleString([], {
      weekday: "short",
      hour: "2-digit",
      minute: "2-digit",
    });
  }
}

/** The screen stays awake where the browser allows it. */
async function awake() {
  if (document.visibilityState === "visible")
    await navigator.wakeLock?.request("screen").catch(() => null);
}

async function worker() {
  if (!navigator.serviceWorker) return;
  await navigator.serviceWorker.register("/hang-worker.js", { scope: "/walls/" });
  const ready = await navigator.serviceWorker.ready;
  const needed = performance
    .getEntriesByType("resource")
    .map((entry) => entry.name)
    .filter((url) => url.startsWith(`${location.origin}/static/`));
  ready.active.postMessage({ keep: [location.origin + location.pathname, ...needed] });
}

window.addEventListener("online", send);
document.addEventListener("visibilitychange", () => {
  awake();
  if (document.visibilityState === "visible") send();
});
show(shown(), false);
when();
awake();
worker().catch(() => null);
tell(kept().length);
send();
