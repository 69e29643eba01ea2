// One drag of one piece: follows the finger, catches on studs, and shows what the server thinks on
// the way. Such an answer says only what differs from the page on which the drag began, so it is
// laid here, part by part.

const CATCH_PX = 9; // how near a support must come to a stud to catch
const STIR_PX = 4; // less than this is a tap

const element = (id) => document.getElementById(id);
const wall = () => element("bench").dataset;
const numbers = (words) => words.split(/\s+/).filter(Boolean).map(Number);

export class Drag {
  /** Where a pointer is on the wall, mm from its left corner and the floor. */
  static place({ clientX, clientY }) {
    const screen = element("sheet").getScreenCTM();
    const point = new DOMPoint(clientX, clientY).matrixTransform(screen.inverse());
    const { scale, left, floor } = wall();
    return { x_mm: (point.x - left) / scale, top_mm: (floor - point.y) / scale };
  }

  constructor(piece, event, address, keep) {
    this.id = piece.id;
    this.address = address;
    this.keep = keep;
    this.rows = [...(element("checks")?.children ?? [])].map((row) => row.cloneNode(true));
    this.section = element("section")?.cloneNode(true);
    this.touched = "";
    this.turn = 0; // answers may overtake one another: only the one to the last question counts
    this.from = { left_mm: +piece.dataset.left, top_mm: +piece.dataset.top };
    this.at = this.from;
    this.start = Drag.place(event);
    this.pressed = event;
    this.stirred = this.asking = this.over = false;
    // the piece itself is drawn anew under the finger
    document.documentElement.setPointerCapture(event.pointerId);
    piece.focus({ preventScroll: true });
  }

  get piece() {
    return element(this.id);
  }

  move(event) {
    const { clientX, clientY } = this.pressed;
    this.stirred ||= Math.hypot(event.clientX - clientX, event.clientY - clientY) >= STIR_PX;
    const { piece } = this;
    if (!piece || !this.stirred) return;
    const now = Drag.place(event);
    const left = this.from.left_mm + now.x_mm - this.start.x_mm;
    const top = this.from.top_mm + now.top_mm - this.start.top_mm;
    const { wallWidth, wallHeight, scale } = wall();
    const free = event.altKey || !element("catch").checked;
    const caught = free ? left : this.caught(left, CATCH_PX / scale);
    this.at = {
      left_mm: Math.min(Math.max(caught, 0), wallWidth - piece.dataset.length),
      top_mm: Math.min(Math.max(top, +piece.dataset.thick), +wallHeight),
    };
    this.show();
    this.judge();
  }

  /** The nearest place to `left` at which a support stands on a stud, when one is near. */
  caught(left, near) {
    const studs = numbers(wall().studs);
    const supports = numbers(this.piece.dataset.supports);
    const shifts = supports
      .flatMap((s) => studs.map((stud) => stud - s - left))
      .filter((shift) => Math.abs(shift) <= near);
    if (!shifts.length) return left;
    const fits = (shift) =>
      supports.filter((s) => studs.some((stud) => Math.abs(stud - s - left - shift) < 1)).length;
    return left + shifts.sort((a, b) => fits(b) - fits(a) || Math.abs(a) - Math.abs(b))[0];
  }

  /** Draw the piece where the finger is, from where the server drew it. */
  show() {
    const { piece, at } = this;
    const { scale } = wall();
    const dx = (at.left_mm - piece.dataset.left) * scale;
    const dy = (piece.dataset.top - at.top_mm) * scale;
    piece.setAttribute("transform", `translate(${dx} ${dy})`);
    piece.classList.add("dragging");
  }

  /** Ask for the verdict here; when it comes and the finger has moved on, ask again. */
  async judge() {
    if (this.asking) return;
    this.asking = true;
    const asked = this.at;
    await this.preview(asked);
    this.asking = false;
    if (this.over || !this.piece) return;
    this.show();
    if (asked !== this.at) this.judge();
  }

  /** Ask what the server thinks of a place, and show it. */
  async preview(place) {
    const turn = ++this.turn;
    const body = new URLSearchParams(new FormData(element("here")));
    const asked = { ...place, seen: body.get("piece"), touched: this.touched, live: 1 };
    for (const [name, value] of Object.entries(asked)) body.set(name, value);
    const headers = { "HX-Request": "true" };
    const answer = await fetch(this.address, { method: "POST", body, headers }).catch(() => null);
    const html = answer?.ok ? await answer.text() : "";
    if (html && turn === this.turn && !this.dropped) this.follow(html);
  }

  follow(html) {
    const fresh = document.createRange().createContextualFragment(html).getElementById("bench");
    if (!fresh?.dataset.live) return fresh && Idiomorph.morph(element("bench"), fresh);
    const kept = [...fresh.querySelectorAll("li[data-kept]")];
    // pressed while another stage was still shown: what was kept of this one is not there
    if (kept.some((row) => !this.rows[row.dataset.kept])) return;
    for (const row of kept) row.replaceWith(this.rows[row.dataset.kept].cloneNode(true));
    fresh.querySelector("section[data-kept]")?.replaceWith(this.section?.cloneNode(true) ?? "");
    for (const part of fresh.querySelectorAll(":scope > [id], :scope > svg > [id]"))
      element(part.id)?.replaceWith(part);
    this.touched = fresh.dataset.touched;
  }

  /** Keep it here. False when it was only a tap. */
  drop(event) {
    if (!this.stirred) return false;
    this.move(event);
    this.over = this.dropped = true;
    this.keep(this.at);
    return true;
  }

  /** Put it back. */
  cancel() {
    this.over = true;
    if (this.stirred) this.preview(this.from);
  }
}
