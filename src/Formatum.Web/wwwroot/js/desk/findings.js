// What the check has found on this spread: marks over the page, words in the inspector, and a sign at each spread of the strip. All of it comes from the
// server, again whenever something changed.
import { ask } from '../shared/http.js';
import { inspector, publication } from './parts.js';
import { listen } from '../shared/events.js';
import { oneAtATime } from '../shared/newest.js';
import { state, watch } from './state.js';

const layer = document.getElementById('findings');
const strip = document.getElementById('strip');
let found = { marks: '', frames: {}, strip: {} };

function showStrip() {
  for (const item of strip.querySelectorAll('.strip-item')) {
    const number = item.querySelector('.strip-picture').id.slice('strip-'.length), sign = found.strip[number];
    if (sign) item.dataset.findings = sign;
    else delete item.dataset.findings;
  }
}

// At the end of the inspector, so that nothing there moves under the pointer.
function showFrame() {
  const section = inspector.querySelector('[data-chosen]');
  section?.querySelector('.frame-findings')?.remove();
  const said = state.selection.length === 1 && found.frames[state.selection[0]];
  if (!section || !said) return;
  const place = document.createElement('div');
  place.className = 'frame-findings';
  place.innerHTML = said;
  section.append(place);
}

// Of the marks, only those are drawn anew that changed.
let written = [];
function showMarks() {
  const drawn = new DOMParser().parseFromString(`<svg xmlns="http://www.w3.org/2000/svg">${found.marks}</svg>`, 'image/svg+xml').documentElement;
  const marks = [...drawn.children], now = marks.map(mark => mark.outerHTML);
  marks.forEach((mark, i) => {
    if (i >= layer.children.length) layer.append(mark);
    else if (written[i] !== now[i]) layer.children[i].replaceWith(mark);
  });
  while (layer.children.length > marks.length) layer.lastElementChild.remove();
  written = now;
  standApart();
}

// A mark that would be written over another steps down, whatever the scale.
function standApart() {
  const taken = [];
  for (const mark of layer.querySelectorAll('.finding-mark')) {
    // Plain numbers: an SVGRect rounds what is written into it, and would never get past its neighbour.
    const { x, y, width, height } = mark.getBBox();
    let top = y;
    const isOver = other => other.x < x + width && x < other.x + other.width && other.top < top + height && top < other.bottom;
    for (let other; (other = taken.find(isOver));) top = other.bottom;
    const moved = top > y ? `translate(0 ${top - y})` : '';
    if (moved !== (mark.getAttribute('transform') ?? '')) mark.setAttribute('transform', moved);
    taken.push({ x, width, top, bottom: top + height });
  }
}

const refresh = oneAtATime(async () => {
  // Where nobody answers, what was found before stays: it is asked for with the next change.
  const { spread } = state, answer = await ask('GET', `/publications/${publication}/check?handler=Marks&spread=${spread}`).catch(() => null);
  // Of a spread that was left meanwhile, it is asked for again.
  if (!answer || state.spread !== spread) return;
  found = JSON.parse(answer.text);
  showMarks();
  showFrame();
  showStrip();
});

watch(['selection', 'answered'], showFrame);
watch(['spread'], () => refresh());
watch(['scale'], () => requestAnimationFrame(standApart));
listen(publication, { changed: refresh, links: refresh, found: refresh });
new MutationObserver(showStrip).observe(strip, { childList: true });
refresh();
