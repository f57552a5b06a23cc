// The tools that make frames: which one is in hand, and what a drag with it makes.
import { change, state, watch } from '../state.js';
import { edit } from '../edits.js';
import { canvas } from '../parts.js';
import { write } from '../writing/text.js';

const buttons = [...document.querySelectorAll('.tool[data-tool]')];
const words = document.getElementById('tool-words');
const gridForm = document.getElementById('grid-form');
const gridCard = document.getElementById('grid-card');

let polygonSides = 6, imageInHand = null;

const told = {
  polygon: () => `${polygonSides} sides`,
  'set-down': () => 'Click, or drag a size: the picture is set down',
  grid: () => 'Drag the grid',
  free: () => 'Click the points, drag one for a curve, or draw around in one stroke; Enter closes',
};

export function takeTool(tool) {
  // The polygon again: one side more, from three to twelve.
  if (tool === 'polygon' && state.tool === 'polygon') polygonSides = polygonSides >= 12 ? 3 : polygonSides + 1;
  change({ tool });
  showTool();
}

function showTool() {
  document.querySelector('[data-tool="polygon"]').title = `A polygon of ${polygonSides} sides (3); again for one side more`;
  words.textContent = told[state.tool]?.() ?? '';
  canvas.dataset.tool = state.tool;
  for (const button of buttons) button.setAttribute('aria-checked', button.dataset.tool === state.tool);
}

// Takes up a picture, to be set down on the page with a frame of its own.
export function takeImage(image) {
  imageInHand = image;
  takeTool('set-down');
}

const gridValues = () => {
  const values = Object.fromEntries(new FormData(gridForm));
  return { ...values, rule: values.rule || null, page: values.page || null };
};

const done = made => {
  takeTool('pick');
  // A text frame that was just made is typed in.
  if (made?.ids.length === 1 && document.querySelector('#inspector [data-chosen][data-text]')) write(made.ids[0]);
};

// What a drag with a tool asks for; null for those that go by clicks.
export function dragOfTool(tool) {
  switch (tool) {
    case 'rectangle': case 'ellipse': case 'polygon': case 'text': return { command: { do: 'draw', outline: tool, sides: polygonSides }, onDone: done };
    case 'grid': return { command: { do: 'grid', ...gridValues() }, onDone: () => takeTool('pick') };
    case 'set-down': return {
      command: { do: 'set-down', image: imageInHand },
      onDone: () => takeTool('pick'),
      onClick: command => {
        takeTool('pick');
        edit(command);
      },
    };
    default: return null;
  }
}

// Makes a frame in the middle of the page, for who works by keys.
export async function drawHere() {
  const { tool } = state;
  takeTool('pick');
  const outcome = await edit({ do: 'draw-here', outline: tool, sides: polygonSides });
  if (tool === 'text' && outcome.done) write(outcome.done.ids[0]);
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
