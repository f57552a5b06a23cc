// The tools that make frames: which one is in hand, and what a drag with it makes.
import { change, state, watch } from '../state.js';
import { edit } from '../edits.js';
import { canvas } from '../parts.js';
import { hold, release, wordsOf } from '../writing/ahead.js';
import { tell } from '../../shared/notices.js';
import { write } from '../writing/text.js';

const buttons = [...document.querySelectorAll('.tool[data-tool]')];
const words = document.getElementById('tool-words');
export const gridForm = document.getElementById('grid-form');
export const gridCard = document.getElementById('grid-card');

const shapeOptions = document.getElementById('shape-options'), sidesField = document.getElementById('shape-sides'),
    depthField = document.getElementById('shape-depth');

let imageInHand = null, stays = false, keyDown = null;

const told = {
  'set-down': () => 'Click, or drag a size',
  grid: () => 'Drag the grid',
  free: () => 'Click points, drag one for a curve, or draw around; Enter closes',
};
const shape = () => ({ outline: state.tool, sides: sidesField.value, depth: depthField.value });

// Takes a tool, that makes one frame; the same again, it stays in hand; once more, it is put down. While its key is held, it stays too.
export function takeTool(tool, { key = null } = {}) {
  const again = tool === state.tool && tool !== 'pick', next = again && stays ? 'pick' : tool;
  stays = again && !stays;
  keyDown = next === 'pick' ? null : key;
  change({ tool: next });
  showTool();
}

// What a tool was taken for is made; it is put down, unless it stays.
function putDown() {
  if (!stays && keyDown === null) takeTool('pick');
}

document.addEventListener('keyup', event => {
  if (event.key !== keyDown) return;
  keyDown = null;
  if (madeByKey) putDown();
  madeByKey = false;
});
let madeByKey = false;

// A polygon of one side more, or less.
export function changeSides(by) {
  sidesField.value = Math.min(Number(sidesField.max), Math.max(Number(sidesField.min), Number(sidesField.value) + by));
}

function showTool() {
  const { tool } = state;
  shapeOptions.hidden = tool !== 'polygon';
  words.textContent = [told[tool]?.(), stays ? 'Stays in hand until Escape' : ''].filter(Boolean).join('. ');
  words.title = words.textContent;
  canvas.dataset.tool = tool;
  for (const button of buttons) {
    button.setAttribute('aria-checked', button.dataset.tool === tool);
    button.classList.toggle('stays', stays && button.dataset.tool === tool);
  }
}

// Takes up a picture, to be set down on the page with a frame of its own.
export function takeImage(image) {
  imageInHand = image;
  takeTool('set-down');
}

export const gridValues = () => {
  const values = Object.fromEntries(new FormData(gridForm));
  return { ...values, rule: values.rule || null, page: values.page || null };
};

// ---- A text frame that was just drawn is typed in --------------------------------------------------------------------------------------

let coming = null;
export const isTextComing = () => coming !== null;

// Keys that come before it is there are meant for it.
function awaitText() {
  coming = { isMeant: true, held: hold() };
  return coming;
}

// Its frame stays, with what was typed for it; what follows is not meant for its text.
export function giveUpText() {
  if (!coming) return;
  coming.isMeant = false;
  coming.words = wordsOf(release(coming.held));
  coming = null;
}

async function openText(text, { done }) {
  if (!text.isMeant) {
    const [frame] = done?.ids ?? [];
    if (text.words && frame) edit({ do: 'write', frames: frame, keep: state.selection.join(',') || 'none', text: text.words });
    else if (text.words) notStored(text.words);
    return;
  }
  coming = null;
  if (done?.ids.length === 1) await write(done.ids[0], { held: text.held });
  else {
    const typed = wordsOf(release(text.held));
    if (typed) notStored(typed);
  }
}

const notStored = words => tell(`What you typed is not stored: \u201c${words}\u201d. Draw the text frame again.`, { stays: true });

// A hand that goes on elsewhere before a key was typed does not mean the text.
document.addEventListener('pointerdown', () => { if (coming) giveUpText(); }, true);

function madeOne() {
  madeByKey = keyDown !== null;
  putDown();
}

// What a drag with a tool asks for; null for those that go by clicks.
export function dragOfTool(tool) {
  switch (tool) {
    case 'rectangle': case 'ellipse': case 'polygon': return { command: { do: 'draw', ...shape() }, onMake: madeOne };
    case 'text': {
      let text = null;
      const onMake = () => {
        text = awaitText();
        // Keys are the text's from here on.
        stays = false;
        keyDown = null;
        putDown();
      };
      return { command: { do: 'draw', ...shape() }, onMake, onDone: outcome => openText(text, outcome) };
    }
    case 'grid': return { command: { do: 'grid', ...gridValues() }, onMake: madeOne };
    case 'set-down': return {
      command: { do: 'set-down', image: imageInHand },
      onMake: madeOne,
      onClick: command => {
        madeOne();
        edit(command);
      },
    };
    default: return null;
  }
}

// Makes a frame in the middle of the page, for who works by keys.
export async function drawHere() {
  const { tool } = state, command = { do: 'draw-here', ...shape() }, text = tool === 'text' ? awaitText() : null;
  takeTool('pick');
  const outcome = await edit(command);
  if (text) await openText(text, outcome);
}

gridForm.addEventListener('click', event => {
  const fills = event.target.closest('[data-fills]')?.dataset.fills;
  if (fills === undefined) return;
  gridCard.hidePopover();
  canvas.focus({ preventScroll: true });
  if (fills) edit({ do: 'grid', ...gridValues(), fills });
  else takeTool('grid');
});
gridForm.addEventListener('submit', event => event.preventDefault());

for (const button of buttons) {
  button.addEventListener('click', () => {
    takeTool(button.dataset.tool);
    canvas.focus({ preventScroll: true });
  });
}
watch(['inside'], () => { if (state.inside && state.tool !== 'pick') takeTool('pick'); });
showTool();
