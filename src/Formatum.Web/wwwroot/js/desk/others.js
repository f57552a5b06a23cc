// Where others type: their caret with their name, and the paragraph it stands in. What they type is shown once it is stored.
import { address, frameElement, make, others, setAll } from './parts.js';
import { ask, windowName } from '../shared/http.js';
import { watch } from './state.js';

// A caret that nothing is heard of for so long, in milliseconds, is taken away.
const patience = 20000;

const seen = new Map();

export function showCaret({ window: from, name, frame, place }) {
  if (from === windowName) return;
  const other = seen.get(from) ?? { group: make('g', { class: 'other-caret' }), asking: false };
  seen.set(from, other);
  Object.assign(other, { name, frame, place });
  clearTimeout(other.timer);
  other.timer = setTimeout(() => {
    other.group.remove();
    seen.delete(from);
  }, patience);
  look(other);
}

// One question at a time for each; the newest place wins.
async function look(other) {
  if (other.asking) return;
  other.asking = true;
  const asked = other.place, answer = await ask('GET', `${address}?handler=Caret&frame=${other.frame}&place=${asked}`).catch(() => null);
  other.asking = false;
  draw(other, answer && JSON.parse(answer.text));
  if (other.place !== asked) look(other);
}

watch(['spread'], () => seen.forEach(look));

function draw({ group, name }, at) {
  if (!at || !frameElement(at.frame)) {
    group.remove();
    return;
  }
  const caret = make('line', { class: 'other-bar' }), paragraph = make('path', { class: 'other-paragraph' }), tag = make('text', { class: 'other-name' });
  setAll(group, { transform: at.transform });
  setAll(caret, { x1: at.x, x2: at.x, y1: at.top, y2: at.bottom });
  setAll(paragraph, { d: at.beside });
  setAll(tag, { x: at.x, y: at.top });
  tag.textContent = name;
  group.replaceChildren(paragraph, caret, tag);
  if (!group.isConnected) others.append(group);
}
