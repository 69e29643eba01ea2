// The practice wall: the pointer, a finger or the keys hold a tool; the server says what it finds.
const page = document.getElementById("practice");
const sheet = document.getElementById("sheet");
const hand = document.getElementById("hand");
const named = (id) => document.getElementById(id);
const token = () => JSON.parse(document.body.getAttribute("hx-headers"))["x-csrftoken"];
const STEP = { imperial: 25.4 / 4, metric: 5 };
const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 10], ArrowDown: [0, -10] };
const LETTERS = { f: "finder", m: "magnet", n: "nail", k: "knock", t: "tape", c: "call" };

let tool = { tool: "finder" };
let at = { x: +page.dataset.width / 2, y: 1300 };
let sweeping = false;
const place = () => ({ x_mm: at.x, y_mm: at.y });

// One question at a time, in order.
let queue = Promise.resolve();
const ask = (url, values) => (queue = queue.then(() => send(url, values())));
async function send(url, values) {
  try {
    const answer = await fetch(url, {
      method: "POST",
      body: new URLSearchParams(values),
      headers: { "X-CSRFToken": token() },
    });
    show(await answer.json());
  } catch {
    say(named("say").dataset.offline);
  }
}

/** While the finder is drawn along, ask for the newest place only. */
let behind = false;
function follow() {
  if (behind) return;
  behind = true;
  ask(page.dataset.read, () => {
    behind = false;
    return { tool: "finder", ...place() };
  });
}

function show({ words, lit, marks, spent, calls }) {
  if (words) say(words);
  if (marks === undefined) return;
  named("marks").innerHTML = marks;
  named("spent").textContent = spent;
  named("call-count").textContent = calls.length;
  named("calls").replaceChildren(
    ...calls.map((call) => Object.assign(document.createElement("li"), { textContent: call })),
  );
  shine(lit && sweeping);
}
function say(words) {
  named("say").textContent = words;
}

// The lamp, the beep, and a tap on the hand that holds the phone.
let shining = false;
let sound = null;
function shine(on) {
  if (on && !shining) navigator.vibrate?.(25);
  shining = on;
  page.classList.toggle("lit", on);
  named("lamp-word").textContent = named("lamp-word").dataset[on ? "on" : "off"];
  beep(on && named("sound").checked);
}
function beep(on) {
  if (on && !sound) {
    const context = new AudioContext();
    const gain = new GainNode(context, { gain: 0 });
    const tone = new OscillatorNode(context, { type: "triangle", frequency: 880 });
    tone.connect(gain).connect(context.destination);
    tone.start();
    sound = { context, gain };
  }
  sound?.gain.gain.setTargetAtTime(on ? 0.12 : 0, sound.context.currentTime, 0.01);
}

// Where the tool is, and what it does there.
function pointed(event) {
  const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(
    sheet.getScreenCTM().inverse(),
  );
  const { scale, left, floor } = page.dataset;
  return { x: (point.x - left) / scale, y: (floor - point.y) / scale };
}
function hold({ x, y }) {
  const { scale, left, floor, width, height } = page.dataset;
  at = {
    x: Math.min(Math.max(x, 0), +width),
    y: sweeping ? at.y : Math.min(Math.max(y, 0), +height),
  }; // a hand keeps its height
  hand.removeAttribute("hidden");
  hand.setAttribute("transform", `translate(${+left + at.x * scale} ${floor - at.y * scale})`);
}
function use() {
  const here = place(); // where it was used, wherever it is when its turn comes
  const { mark, tool: name } = tool;
  if (mark) ask(page.dataset.mark, () => ({ what: mark, ...here }));
  else if (name !== "finder") ask(page.dataset.read, () => ({ tool: name, ...here }));
  else if (sweeping) lift();
  else {
    sweeping = true;
    shine(false);
    ask(page.dataset.read, () => ({ tool: "finder", begin: 1, ...here }));
  }
}
function lift() {
  if (sweeping) follow();
  sweeping = false;
  shine(false);
}

if (matchMedia("(max-width: 760px)").matches) sheet.setAttribute("viewBox", sheet.dataset.narrow);
if (hand) {
  named("sound").checked = localStorage.getItem("practice-sound") === "on";
  named("sound").addEventListener("change", (event) => {
    localStorage.setItem("practice-sound", event.target.checked ? "on" : "off");
    shine(shining);
  });
  sheet.addEventListener("pointerdown", (event) => {
    if (event.button > 0) return;
    event.preventDefault();
    sheet.focus({ preventScroll: true });
    sheet.setPointerCapture(event.pointerId);
    lift();
    hold(pointed(event));
    use();
  });
  sheet.addEventListener("pointermove", (event) => {
    if (sweeping && !sheet.hasPointerCapture(event.pointerId)) return; // the keys hold it
    hold(pointed(event));
    if (sweeping) follow();
  });
  for (const end of ["pointerup", "pointercancel"]) sheet.addEventListener(end, lift);
  sheet.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const step = STEP[page.dataset.units] * (event.shiftKey ? 10 : 1);
    if (ARROWS[event.key]) {
      const [dx, dy] = ARROWS[event.key];
      hold({ x: at.x + dx * step, y: at.y + dy * step });
      if (sweeping) follow();
    } else if (event.key === " " || event.key === "Enter") use();
    else if (event.key === "Escape") lift();
    else return;
    event.preventDefault();
  });
  document.addEventListener("keydown", (event) => {
    if (
      event.target.matches("input, select, textarea") ||
      event.ctrlKey ||
      event.metaKey ||
      event.altKey
    )
      return;
    const chosen = LETTERS[event.key.toLowerCase()];
    if (chosen) named(`tool-${chosen}`).click();
  });
  const take = (event) => {
    const button = event.target.closest(".tool-kind");
    if (!button) return;
    lift();
    tool = { ...button.dataset };
    for (const each of page.querySelectorAll(".tool-kind"))
      each.setAttribute("aria-pressed", String(each === button));
  };
  // a browser may swallow the click of a tap that follows a swipe
  page.addEventListener("pointerdown", take);
  page.addEventListener("click", take);
  named("uncover-form").addEventListener("submit", async (event) => {
    event.preventDefault();
    lift();
    let asked = null;
    while (asked !== queue) await (asked = queue); // everything that was done counts
    event.target.submit();
  });
  named("structure").addEventListener("change", (event) => {
    ask(page.dataset.mark, () => ({
      what: "structure",
      structure: event.target.value,
      ...place(),
    }));
  });
  hold(at);
}
