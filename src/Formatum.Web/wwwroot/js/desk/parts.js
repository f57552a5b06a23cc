// The standing elements of the Desk, and how what is drawn on the spread is found and made.
import { change, state, watch } from './state.js';

export const desk = document.getElementById('desk');
export const svg = document.getElementById('spread');
export const canvas = document.getElementById('canvas');
export const inspector = document.getElementById('inspector');
export const typing = document.getElementById('typing');
export const underWay = document.getElementById('under-way');
export const others = document.getElementById('others');
export const grips = document.getElementById('grips');
export const marks = document.getElementById('marks');
export const tray = document.getElementById('tray');
export const sheet = document.getElementById('sheet');
export const pointerWords = document.getElementById('pointer-words');

export const publication = desk.dataset.publication;
// Of the spread that is shown: its address, and its pages' boxes.
export let address, pages;
export function showsSpread(number) {
  desk.dataset.spread = number;
  address = `${desk.dataset.address}/${number}`;
  pages = svg.dataset.pages.split(';').map(text => text.split(' ').map(Number));
}
showsSpread(desk.dataset.spread);
change({ spread: Number(desk.dataset.spread) });

export const frameElement = id => document.getElementById(`frame-${id}`);
export const frameElements = () => [...svg.querySelectorAll('#frames [data-frame]')];
export const idOf = element => Number(element.dataset.frame);
export const boxOf = element => element.dataset.box.split(' ').map(Number);
export const numbers = text => (text ? text.split(',').map(Number) : []);

export function make(name, attributes) {
  const element = document.createElementNS('http://www.w3.org/2000/svg', name);
  setAll(element, attributes);
  return element;
}

export function setAll(element, attributes) {
  for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, value);
}

// Where an event happened, in points of the spread.
export function at(event) {
  return through(svg.getScreenCTM().inverse(), event);
}

function through(toSpread, event) {
  const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(toSpread);
  return { x: point.x, y: point.y };
}

// The same for many events one after the other: where the spread lies in the window is looked up again only once it may have changed. To look it up has
// the browser lay out the whole page, were it the picture of a single frame that changed.
export function follower() {
  let toSpread = null;
  const forget = () => { toSpread = null; };
  canvas.addEventListener('scroll', forget);
  window.addEventListener('resize', forget);
  const letGo = watch(['scale'], forget);
  return {
    at: event => through(toSpread ??= svg.getScreenCTM().inverse(), event),
    close() {
      canvas.removeEventListener('scroll', forget);
      window.removeEventListener('resize', forget);
      letGo();
    },
  };
}

export function turnOf(frame) {
  const [x, y, width, height] = boxOf(frame);
  return `rotate(${frame.dataset.angle} ${x + width / 2} ${y + height / 2})`;
}

// The upright box around a frame, in points of the spread.
export function boundsOf(frame) {
  const [x, y, width, height] = boxOf(frame), angle = Number(frame.dataset.angle) * (Math.PI / 180);
  const cos = Math.abs(Math.cos(angle)), sin = Math.abs(Math.sin(angle)), across = width * cos + height * sin, down = width * sin + height * cos;
  return [x + (width - across) / 2, y + (height - down) / 2, across, down];
}

// The upright box around all that is chosen; null where nothing is.
export function boundsOfSelection() {
  const boxes = state.selection.map(frameElement).filter(Boolean).map(boundsOf);
  if (boxes.length === 0) return null;
  const left = Math.min(...boxes.map(b => b[0])), top = Math.min(...boxes.map(b => b[1]));
  return [left, top, Math.max(...boxes.map(b => b[0] + b[2])) - left, Math.max(...boxes.map(b => b[1] + b[3])) - top];
}

// Frames of one group are chosen together.
export function withGroups(ids) {
  const groups = new Set(ids.map(id => frameElement(id)?.dataset.group).filter(Boolean));
  const more = frameElements().filter(frame => groups.has(frame.dataset.group)).map(idOf);
  return [...new Set([...ids, ...more])];
}

// Opens a card where the pointer is, once the click that asked for it is over; it would close it again.
export function showCard(card, event, field) {
  setTimeout(() => {
    card.showPopover();
    card.style.left = `${Math.max(12, Math.min(event.clientX, innerWidth - card.offsetWidth - 12))}px`;
    card.style.top = `${Math.max(12, Math.min(event.clientY + 8, innerHeight - card.offsetHeight - 12))}px`;
    field?.select?.();
  });
}
