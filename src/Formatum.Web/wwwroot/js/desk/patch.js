// Shows what the server answered about a drag under way: attributes are set as they come.
import { frameElement, make, marks, pointerWords, setAll, underWay } from './parts.js';
import { showInside } from './tools/inside.js';
import { showGrips } from './grips.js';
import { state } from './state.js';

const shapeName = shape => 'd' in shape ? 'path' : 'points' in shape ? 'polygon' : 'rx' in shape ? 'ellipse' : 'rect';
const geometry = new Set(['d', 'points', 'x', 'y', 'width', 'height', 'cx', 'cy', 'rx', 'ry']);

// A rectangle whose corner is dragged away is none any more.
export function setShape(element, shape) {
  if (element.localName === shapeName(shape)) {
    setAll(element, shape);
    return;
  }
  const other = make(shapeName(shape), shape);
  for (const { name, value } of element.attributes) if (!geometry.has(name)) other.setAttribute(name, value);
  element.replaceWith(other);
}

function showGhost(patch) {
  const group = make('g', { transform: patch.transform });
  group.append(make(shapeName(patch.shape), { class: 'ghost', ...patch.shape }));
  underWay.append(group);
}

function showFigures(frame, figures) {
  frame.querySelectorAll('.figures tspan').forEach((line, i) => { line.textContent = figures.lines[i]; });
  const sharpness = frame.querySelector('.sharpness');
  sharpness.dataset.sharpness = figures.sharpness;
  sharpness.querySelector('text').textContent = figures.resolution;
}

function showFacts(facts) {
  for (const [id, words] of Object.entries(facts)) {
    const fact = document.getElementById(id);
    if (fact) fact.textContent = words;
  }
}

function showLabel(label, { x, y, largest, lines }) {
  label.setAttribute('y', y);
  label.style.setProperty('--largest', `${largest}px`);
  label.querySelectorAll('tspan').forEach((line, i) => {
    line.setAttribute('x', x);
    line.textContent = lines[i];
  });
}

function showFrame(patch) {
  const frame = frameElement(patch.id);
  if (!frame) {
    if (patch.shape) showGhost(patch);
    return;
  }
  frame.setAttribute('transform', patch.transform);
  Object.assign(frame.dataset, { box: patch.box, angle: patch.angle });
  if (patch.points) document.getElementById('shape-points')?.setAttribute('data-points', patch.points);
  if (patch.shape) frame.querySelectorAll('.shape, clipPath > *').forEach(shape => setShape(shape, patch.shape));
  if (patch.image) frame.querySelector('image')?.setAttribute('transform', patch.image);
  const label = frame.querySelector('.empty-label');
  if (label && patch.label) showLabel(label, patch.label);
  if (patch.text) frame.querySelector('.text-holder').innerHTML = patch.text;
  const border = frame.querySelector('.border');
  if (border && patch.border) border.innerHTML = patch.border;
  if (patch.figures) showFigures(frame, patch.figures);
  // The inspector's figures are of the one frame that is chosen.
  if (patch.figures && state.selection.length === 1 && state.selection[0] === patch.id) showFacts(patch.figures.facts);
}

export function showAnswer(answer, pointer = null) {
  underWay.replaceChildren();
  if (answer.preview) underWay.innerHTML = answer.preview;
  answer.frames.forEach(showFrame);
  marks.replaceChildren(...answer.marks.map(mark => make('line', { class: 'mark-line', ...mark })));
  if (answer.inside) showInside(answer.inside);
  else showGrips();
  // Moved with the answer: moved before it, the screen would be drawn once more in between, and the answer wait for that.
  if (pointer) showWords(answer.words, pointer);
}

export function showWords(words, pointer) {
  pointerWords.style.transform = `translate(${pointer.clientX + 16}px, ${pointer.clientY + 18}px)`;
  pointerWords.textContent = words;
  pointerWords.hidden = !words;
}

export function hideWords() {
  pointerWords.hidden = true;
}
