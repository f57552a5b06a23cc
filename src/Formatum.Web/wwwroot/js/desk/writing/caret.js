// The caret in the lines of the page: drawn where the server said that a place in the text is, moved to the nearest place from where a pointer or key points.
import { frameElement, make, setAll, typing } from '../parts.js';

export class Caret {
  // The field that takes what is typed; what is selected in it is shown in the page.
  constructor(field) {
    this.field = field;
    this.lines = [];
    this.frames = new Map();
    this.shown = new Map();
    this.goal = null;
    this.selection = make('g', { class: 'text-selection' });
    this.bar = make('line', { class: 'text-caret' });
    this.holder = make('foreignObject', { class: 'writing-holder', width: 2, height: 12 });
    // In a form of its own, the browser does not go through all fields of the page, as it may fill them in, with each key.
    const form = document.createElement('form');
    form.append(field);
    this.holder.append(form);
    typing.replaceChildren(this.selection, this.bar, this.holder);
    this.blinking = this.bar.getAnimations()[0];
  }

  get focus() { return this.field.selectionDirection === 'backward' ? this.field.selectionStart : this.field.selectionEnd; }
  get anchor() { return this.field.selectionDirection === 'backward' ? this.field.selectionEnd : this.field.selectionStart; }

  // Shows text as the server set it, and remembers where each place in it is.
  show({ frames, leftOver }) {
    this.frames = new Map(frames.map(frame => [frame.id, frame]));
    this.lines = frames.flatMap(frame => frame.lines.map(line => ({ ...line, frame, end: line.start + line.stops.length - 1 })));
    this.leftOver = leftOver;
    for (const frame of frames) this.set(frame);
    this.draw();
  }

  // Of a frame's lines, only those are drawn anew that changed.
  set({ id, lines }) {
    const holder = frameElement(id)?.querySelector('.text-holder');
    if (!holder) return;
    let shown = this.shown.get(id);
    if (shown?.group.parentNode !== holder) {
      // Of a name of its own, so that an answer does not take it for its own and change lines in it unseen.
      shown = { group: make('g', { id: `writing-${id}`, class: 'set-text' }), drawn: [] };
      holder.replaceChildren(shown.group);
      this.shown.set(id, shown);
    }
    const { group, drawn } = shown;
    lines.forEach((line, i) => {
      if (drawn[i] === line.drawn) return;
      drawn[i] = line.drawn;
      const one = group.children[i] ?? group.appendChild(make('g', {}));
      one.innerHTML = line.drawn;
    });
    while (group.children.length > lines.length) group.lastChild.remove();
    drawn.length = lines.length;
  }

  // The line that a place stands in: where one ends and the next begins, the next.
  lineOf(place) {
    let found = -1;
    for (let i = 0; i < this.lines.length; i++) if (place >= this.lines[i].start && place <= this.lines[i].end) found = i;
    return found;
  }

  draw() {
    const from = this.field.selectionStart, to = this.field.selectionEnd, line = this.lines[this.lineOf(this.focus)];
    this.selection.replaceChildren(...(from === to ? [] : this.lines.filter(l => l.start < to && l.end >= from)).map(l => {
      // From right to left, what is behind stands before.
      const stops = l.stops.slice(Math.max(0, from - l.start), Math.min(l.stops.length, to - l.start + 1));
      const left = Math.min(...stops), right = Math.max(...stops);
      return make('rect', { transform: l.frame.transform, x: left, y: l.top, width: Math.max(0.5, right - left), height: l.bottom - l.top });
    }));
    this.bar.classList.toggle('is-away', !line);
    if (!line) return;
    const x = line.stops[this.focus - line.start];
    setAll(this.bar, { transform: line.frame.transform, x1: x, x2: x, y1: line.top, y2: line.bottom });
    setAll(this.holder, { transform: line.frame.transform, x, y: line.top, height: Math.max(1, line.bottom - line.top) });
    // Drawn anew, it does not blink just then.
    if (this.blinking) this.blinking.currentTime = 0;
  }

  // The place nearest to where a pointer is; null where that is in no frame of this text.
  placeAt(event) {
    const frame = this.frameAt(event);
    if (!frame) return null;
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(frameElement(frame.id).getScreenCTM().inverse());
    const lines = this.lines.filter(line => line.frame === frame);
    if (lines.length === 0) return 0;
    const away = line => {
      const [left, right] = [line.stops[0], line.stops.at(-1)];
      return Math.hypot(Math.max(0, line.top - point.y, point.y - line.bottom) * 3, Math.max(0, left - point.x, point.x - right));
    };
    const line = lines.reduce((best, next) => (away(next) < away(best) ? next : best));
    return this.nearest(line, point.x);
  }

  frameAt(event) {
    const element = document.elementsFromPoint(event.clientX, event.clientY).find(e => e.closest?.('[data-frame]'))?.closest('[data-frame]');
    return element ? this.frames.get(Number(element.dataset.frame)) ?? null : null;
  }

  nearest(line, x) {
    let best = 0;
    line.stops.forEach((stop, i) => { if (Math.abs(stop - x) < Math.abs(line.stops[best] - x)) best = i; });
    return line.start + Math.min(best, this.lastOf(line) - line.start);
  }

  // Behind the last word of a line: behind the blank there the next begins.
  lastOf(line) {
    const next = this.lines[this.lines.indexOf(line) + 1];
    return next && next.start === line.end && line.end > line.start ? line.end - 1 : line.end;
  }

  // Where a key leads that goes by lines; null for all others, and where the lines end.
  goesTo(key) {
    const at = this.lineOf(this.focus), line = this.lines[at];
    if (!line) return null;
    if (key === 'Home') return line.start;
    if (key === 'End') return this.lastOf(line);
    const by = { ArrowUp: -1, ArrowDown: 1, PageUp: -12, PageDown: 12 }[key];
    this.goal ??= line.stops[this.focus - line.start];
    let i = at;
    for (let left = Math.abs(by); left > 0; left--) {
      let next = i + Math.sign(by);
      // Pieces of one line stand at one height.
      while (this.lines[next] && this.isBeside(this.lines[next], this.lines[i])) next += Math.sign(by);
      if (!this.lines[next]) break;
      i = next;
    }
    if (i === at) return by < 0 ? line.start : line.end;
    const beside = this.lines.filter(other => other === this.lines[i] || this.isBeside(other, this.lines[i]));
    const off = other => Math.max(0, other.stops[0] - this.goal, this.goal - other.stops.at(-1));
    return this.nearest(beside.reduce((best, next) => (off(next) < off(best) ? next : best)), this.goal);
  }

  isBeside(one, other) {
    return one.frame === other.frame && one.column === other.column && one.top === other.top;
  }

  // Puts the caret to a place, or stretches what is selected to it.
  put(place, { stretch = false } = {}) {
    const anchor = stretch ? this.anchor : place;
    this.field.setSelectionRange(Math.min(anchor, place), Math.max(anchor, place), place < anchor ? 'backward' : 'forward');
    this.draw();
  }

  // Goes on by one character as people see them.
  step(by, { stretch = false } = {}) {
    const text = this.field.value, { focus } = this, near = text.slice(Math.max(0, focus - 40), focus + 40), base = Math.max(0, focus - 40);
    const ends = [...new Intl.Segmenter(undefined, { granularity: 'grapheme' }).segment(near)].map(s => s.index + base).concat(base + near.length);
    const next = by < 0 ? ends.findLast(end => end < focus) : ends.find(end => end > focus);
    if (next !== undefined) this.put(next, { stretch });
  }

  // Selects the word, or the paragraph, about a place.
  select(place, what) {
    const text = this.field.value;
    if (what === 'paragraph') {
      const from = text.lastIndexOf('\n', place - 1) + 1, to = text.indexOf('\n', place);
      this.field.setSelectionRange(from, to < 0 ? text.length : to);
    } else {
      const word = [...new Intl.Segmenter(undefined, { granularity: 'word' }).segment(text.slice(Math.max(0, place - 60), place + 60))]
          .map(s => ({ from: s.index + Math.max(0, place - 60), to: s.index + Math.max(0, place - 60) + s.segment.length }))
          .find(s => place >= s.from && place < s.to);
      this.field.setSelectionRange(word?.from ?? place, word?.to ?? place);
    }
    this.draw();
  }
}
