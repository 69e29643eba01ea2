// One drag of one piece: follows the finger, catches on studs, and shows what the server thinks on
// the way. Such an answer says only what differs from the page on which the drag began, so it is
// laid here, part by part.

const CATCH_PX = 9; // how near a support must come to a stud to catch
const STIR_PX = 4; // less than this is a tap

export class Drag {
  /** Where a pointer is on the wall, mm from its left corner and the floor. */
  static place(bench, sheet, event) {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      sheet.getScreenCTM().inverse(),
    );
    const { scale, left, floor } = bench.dataset;
    return { x: (point.x - left) / scale, y: (floor - point.y) / scale };
  }

  constructor(bench, piece, event, address, keep) {
    this.bench = bench;
    this.id = piece.id;
    this.address = address;
    this.keep = keep;
    this.rows = [...(document.getElementById("checks")?.children ?? [])].map((row) =>
      row.cloneNode(true),
    );
    this.section = document.getElementById("section")?.cloneNode(true);
    this.touched = "";
    this.turn = 0; // answers may overtake one another: only the one to the last question counts
    this.from = { left: +piece.dataset.left, top: +piece.dataset.top };
    this.at = { ...this.from };
    this.start = Drag.place(bench(), this.sheet, event);
    this.pressed = { x: event.clientX, y: event.clientY };
    this.stirred = false;
    this.asking = false;
    this.over = false;
  }

  get sheet() {
    return document.getElementById("sheet");
  }
  get piece() {
    return document.getElementById(this.id);
  }

  move(event) {
    if (
      !this.stirred &&
      Math.hypot(event.clientX - this.pressed.x, event.clientY - this.pressed.y) < STIR_PX
    )
      return;
    this.stirred = true;
    const now = Drag.place(this.bench(), this.sheet, event);
    const { wallWidth, wallHeight, scale } = this.bench().dataset;
    const piece = this.piece;
    if (!piece) return;
    const left = this.from.left + now.x - this.start.x;
    const top = this.from.top + now.y - this.start.y;
    const free = event.altKey || !document.getElementById("catch").checked;
    const caught = free ? left : this.caught(left, CATCH_PX / scale);
    this.at.left = Math.min(Math.max(caught, 0), wallWidth - piece.dataset.length);
    this.at.top = Math.min(Math.max(top, +piece.dataset.thick), +wallHeight);
    this.show();
    this.judge();
  }

  /** The nearest place to `left` at which a support stands on a stud, when one is near. */
  caught(left, near) {
    const studs = this.bench().dataset.studs.trim().split(/\s+/).filter(Boolean).map(Number);
    const supports = this.piece.dataset.supports.split(" ").filter(Boolean).map(Number);
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
    const piece = this.piece;
    const { scale } = this.bench().dataset;
    const dx = (this.at.left - piece.dataset.left) * scale;
    const dy = (piece.dataset.top - this.at.top) * scale;
    piece.setAttribute("transform", `translate(${dx} ${dy})`);
    piece.classList.add("dragging");
  }

  /**
   * Ask for the verdict here, one question at a time; when the answer comes and the finger has
   * moved on, ask again.
   */
  async judge() {
    if (this.asking) return;
    this.asking = true;
    const asked = { ...this.at };
    await this.preview(asked);
    this.asking = false;
    if (this.over || !this.piece) return;
    this.show();
    if (asked.left !== this.at.left || asked.top !== this.at.top) this.judge();
  }

  /** Ask what the server thinks of a place, and show it. */
  async preview({ left, top }) {
    const turn = ++this.turn;
    const { base, stage, piece, look } = this.bench().dataset;
    const body = new URLSearchParams({
      base,
      stage,
      piece,
      look,
      seen: piece,
      touched: this.touched,
      left_mm: left,
      top_mm: top,
      live: 1,
    });
    const headers = {
      "HX-Request": "true",
      ...JSON.parse(document.body.getAttribute("hx-headers")),
    };
    const answer = await fetch(this.address, { method: "POST", body, headers }).catch(() => null);
    const html = answer?.ok ? await answer.text() : "";
    if (html && turn === this.turn && !this.dropped) this.follow(html);
  }

  follow(html) {
    const fresh = document.createRange().createContextualFragment(html).getElementById("bench");
    if (!fresh?.dataset.live) return fresh && Idiomorph.morph(this.bench(), fresh);
    for (const row of fresh.querySelectorAll("li[data-kept]"))
      row.replaceWith(this.rows[row.dataset.kept].cloneNode(true));
    fresh.querySelector("section[data-kept]")?.replaceWith(this.section?.cloneNode(true) ?? "");
    for (const part of fresh.querySelectorAll(":scope > [id], :scope > svg > [id]"))
      document.getElementById(part.id)?.replaceWith(part);
    this.touched = fresh.dataset.touched;
  }

  /** Keep it here. False when it was only a tap. */
  drop(event) {
    if (!this.stirred) return false;
    this.move(event);
    this.over = this.dropped = true;
    this.keep({ left_mm: this.at.left, top_mm: this.at.top });
    return true;
  }

  /** Put it back. */
  cancel() {
    this.over = true;
    if (this.stirred) this.preview(this.from);
  }
}
