// How the spread is looked at: zoom, panning, rulers, what is written over the pictures, and the page clean.
import { at, boundsOfSelection, boxOf, canvas, frameElement, make, pages, publication, svg, typing } from './parts.js';
import { cancelDrag } from './drag.js';
import { change, state, watch } from './state.js';
import { turnTo } from './edits.js';
import { followPointer, isTyping } from '../shared/pointer.js';
import { tell } from '../shared/notices.js';

let viewX, viewY, viewWidth, viewHeight;
const figure = document.getElementById('zoom-figure');
const modeButtons = [...document.querySelectorAll('[data-zoom]')];
const room = 14, least = 0.05, most = 20, step = 1.25;

function measure() {
  [viewX, viewY, viewWidth, viewHeight] = svg.getAttribute('viewBox').split(' ').map(Number);
}
measure();

// 100 % shows an inch as 96 CSS pixels.
const fullScale = 96 / 72;

// ---- Zoom --------------------------------------------------------------------------------------------------------------------------------

function setScale(next, mode = '') {
  const scale = Math.min(Math.max(next, least), most);
  for (const { style } of [svg, typing]) {
    style.width = `${viewWidth * scale}px`;
    style.height = `${viewHeight * scale}px`;
    style.setProperty('--pixel', `${1 / scale}`);
  }
  figure.textContent = `${Math.round(scale / fullScale * 100)} %`;
  for (const button of modeButtons) if (!['in', 'out'].includes(button.dataset.zoom)) button.setAttribute('aria-pressed', button.dataset.zoom === mode);
  change({ scale });
  remember(mode);
}

export function zoom(mode) {
  const width = canvas.clientWidth - 2 * room, height = canvas.clientHeight - 2 * room, around = boundsOfSelection();
  const bleed = 2 * Number(svg.dataset.bleed), last = pages.at(-1), spread = [pages[0][0], 0, last[0] + last[2], last[3]];
  const fit = ([, , w, h], more, factor = 1) => Math.min(width / (w * factor + more), height / (h * factor + more));
  if (mode === 'in' || mode === 'out') {
    about({ clientX: canvas.getBoundingClientRect().left + canvas.clientWidth / 2, clientY: canvas.getBoundingClientRect().top + canvas.clientHeight / 2 },
      state.scale * (mode === 'in' ? step : 1 / step));
    return;
  }
  if (mode === 'selection' && !around) {
    tell('Nothing is chosen. Choose a frame to zoom to it.');
    return;
  }
  const of = mode === 'selection' ? around : mode === 'page' ? pageInSight() : mode === 'full' ? (around ?? pageInSight()) : spread;
  setScale(mode === 'full' ? fullScale : mode === 'selection' ? fit(of, 0, 1.15) : fit(of, bleed), mode);
  centreOn(of[0] + of[2] / 2, of[1] + of[3] / 2);
}

// The page of what is chosen, else the one that is nearest the middle of the window.
function pageInSight() {
  const frame = state.selection.length > 0 && frameElement(state.selection[0]);
  const middle = frame ? boxOf(frame)[0] + boxOf(frame)[2] / 2 : centre().x;
  return pages.reduce((nearest, page) => (Math.abs(page[0] + page[2] / 2 - middle) < Math.abs(nearest[0] + nearest[2] / 2 - middle) ? page : nearest));
}

function centreOn(x, y) {
  canvas.scrollLeft = (x - viewX) * state.scale - canvas.clientWidth / 2;
  canvas.scrollTop = (y - viewY) * state.scale - canvas.clientHeight / 2;
}

const centre = () => ({ x: (canvas.scrollLeft + canvas.clientWidth / 2) / state.scale + viewX,
    y: (canvas.scrollTop + canvas.clientHeight / 2) / state.scale + viewY });

// Zooms so that what is under a point of the window stays there.
function about(point, scale) {
  const kept = at(point);
  setScale(scale);
  const now = new DOMPoint(kept.x, kept.y).matrixTransform(svg.getScreenCTM());
  canvas.scrollLeft += now.x - point.clientX;
  canvas.scrollTop += now.y - point.clientY;
}

canvas.addEventListener('wheel', event => {
  if (!(event.ctrlKey || event.metaKey) || state.inside) return;
  event.preventDefault();
  about(event, state.scale * Math.exp(-event.deltaY / (event.deltaMode === 0 ? 400 : 8)));
}, { passive: false });

for (const button of modeButtons) button.addEventListener('click', () => zoom(button.dataset.zoom));
window.addEventListener('resize', () => { if (document.querySelector('[data-zoom="spread"]').getAttribute('aria-pressed') === 'true') zoom('spread'); });

// ---- Zoom and place stay when the spread changes ---------------------------------------------------------------------------------------------

const place = `desk-view-${publication}`;

function remember(mode) {
  const { x, y } = centre();
  sessionStorage.setItem(place, JSON.stringify({ mode, scale: state.scale, x, y }));
}

export function showAsBefore() {
  const before = JSON.parse(sessionStorage.getItem(place) ?? 'null');
  if (!before || before.mode === 'spread' || before.mode === 'selection') {
    zoom('spread');
    return;
  }
  setScale(before.scale, before.mode);
  centreOn(before.x, before.y);
}
watch(['spread'], () => {
  measure();
  showAsBefore();
  drawRulersSoon();
  // For whoever hears the page.
  document.getElementById('spread-told').textContent = svg.getAttribute('aria-label');
});
canvas.addEventListener('scroll', () => {
  const { mode } = JSON.parse(sessionStorage.getItem(place) ?? '{}');
  remember(mode ?? '');
});

// ---- Panning: with the space bar, the middle button, or a finger on the table; two fingers zoom ------------------------------------------------

let spaceHeld = false;
document.addEventListener('keydown', event => {
  if (event.key !== ' ' || isTyping(event.target) || event.target.closest('button, summary, a, input')) return;
  event.preventDefault();
  spaceHeld = true;
  canvas.classList.add('panning');
});
document.addEventListener('keyup', event => {
  if (event.key !== ' ') return;
  spaceHeld = false;
  canvas.classList.remove('panning');
});

function pan(event) {
  canvas.setPointerCapture(event.pointerId);
  const from = { x: event.clientX + canvas.scrollLeft, y: event.clientY + canvas.scrollTop };
  return followPointer(canvas, e => { if (e.pointerId === event.pointerId) canvas.scrollTo(from.x - e.clientX, from.y - e.clientY); });
}

canvas.addEventListener('pointerdown', event => {
  if (!(spaceHeld && event.button === 0) && event.button !== 1) return;
  event.preventDefault();
  event.stopImmediatePropagation();
  pan(event);
}, true);

const fingers = new Map();
let letGo = null;

canvas.addEventListener('pointerdown', event => {
  if (event.pointerType !== 'touch' || state.inside) return;
  fingers.set(event.pointerId, event);
  if (fingers.size === 2) {
    event.preventDefault();
    event.stopImmediatePropagation();
    letGo?.();
    cancelDrag();
    pinch();
  } else if (fingers.size === 1 && state.tool === 'pick' && !event.target.closest('[data-frame], [data-grip], [data-point], [data-guide]')) letGo = pan(event);
}, true);
for (const kind of ['pointerup', 'pointercancel']) {
  document.addEventListener(kind, event => {
    fingers.delete(event.pointerId);
    if (fingers.size === 0) letGo = null;
  }, true);
}

function pinch() {
  const measure = () => {
    const [p, q] = [...fingers.values()];
    return { clientX: (p.clientX + q.clientX) / 2, clientY: (p.clientY + q.clientY) / 2, apart: Math.hypot(p.clientX - q.clientX, p.clientY - q.clientY) };
  };
  let last = measure();
  const onMove = event => {
    if (!fingers.has(event.pointerId) || fingers.size !== 2) return;
    fingers.set(event.pointerId, event);
    const now = measure();
    canvas.scrollLeft -= now.clientX - last.clientX;
    canvas.scrollTop -= now.clientY - last.clientY;
    about(now, state.scale * now.apart / Math.max(1, last.apart));
    last = now;
  };
  const end = () => {
    if (fingers.size === 2) return;
    document.removeEventListener('pointermove', onMove);
    document.removeEventListener('pointerup', end);
    document.removeEventListener('pointercancel', end);
  };
  document.addEventListener('pointermove', onMove);
  document.addEventListener('pointerup', end);
  document.addEventListener('pointercancel', end);
}

// ---- Rulers: in the publication's unit, from the upper left of the spread ------------------------------------------------------------------------

const unit = Number(svg.dataset.unit);
const rulers = [{ element: document.getElementById('ruler-top'), upright: false }, { element: document.getElementById('ruler-left'), upright: true }];

function drawRuler({ element, upright }, matrix, bounds) {
  const length = upright ? bounds.height : bounds.width, zero = upright ? matrix.f - bounds.top : matrix.e - bounds.left;
  const pixels = unit * matrix.a;
  const every = [0.25, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find(s => s * pixels >= 44) ?? 2000;
  const ticks = make('svg', {});
  for (let n = Math.floor(-zero / pixels / every); n * every * pixels + zero <= length; n++) {
    const where = n * every * pixels + zero;
    for (let part = 0; part < 5; part++) {
      const tick = where + part * every * pixels / 5, reach = part === 0 ? 0 : 11;
      ticks.append(make('line', upright ? { x1: reach, y1: tick, x2: 16, y2: tick } : { x1: tick, y1: reach, x2: tick, y2: 16 }));
    }
    const words = make('text', upright ? { transform: `translate(8 ${where + 3}) rotate(-90)`, 'text-anchor': 'end' } : { x: where + 3, y: 9 });
    words.textContent = Math.round(n * every * 100) / 100;
    ticks.append(words);
  }
  element.replaceChildren(ticks);
}

let drawing = false;
function drawRulersSoon() {
  if (drawing) return;
  drawing = true;
  requestAnimationFrame(() => {
    drawing = false;
    const matrix = svg.getScreenCTM(), bounds = canvas.getBoundingClientRect();
    rulers.forEach(ruler => drawRuler(ruler, matrix, bounds));
  });
}
canvas.addEventListener('scroll', drawRulersSoon);
window.addEventListener('resize', drawRulersSoon);
watch(['scale'], drawRulersSoon);
drawRulersSoon();

// ---- Written over the pictures, and the page clean -------------------------------------------------------------------------------------------------

for (const button of document.querySelectorAll('[data-overlay]')) {
  button.addEventListener('click', () => {
    const on = button.getAttribute('aria-pressed') !== 'true';
    document.querySelectorAll('[data-overlay]').forEach(other => other.setAttribute('aria-pressed', on && other === button));
    canvas.dataset.over = on ? button.dataset.overlay : '';
  });
}

const cleanButton = document.getElementById('clean');
export function showClean(on) {
  canvas.classList.toggle('clean', on);
  cleanButton.setAttribute('aria-pressed', on);
}
cleanButton.addEventListener('click', () => showClean(cleanButton.getAttribute('aria-pressed') !== 'true'));

// The treatment of pictures is put aside for as long as its key is held.
export function showUntreated(on) {
  canvas.classList.toggle('untreated', on);
}

document.addEventListener('keyup', event => {
  if (event.key === '`') showClean(false);
  if (event.key === '\\') showUntreated(false);
});
window.addEventListener('blur', () => showUntreated(false));

// ---- To a page by its number ---------------------------------------------------------------------------------------------------------------------------

document.addEventListener('submit', event => {
  if (event.target.id !== 'go-to-page') return;
  event.preventDefault();
  turnTo({ folio: new FormData(event.target).get('page').trim() });
});
