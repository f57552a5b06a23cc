// Follows a pointer that went down, until it is let go or taken away; onEnd is told how it ended. Gives a function that lets go by itself.
export function followPointer(target, onMove, onEnd = () => {}) {
  const end = event => {
    target.removeEventListener('pointermove', onMove);
    target.removeEventListener('pointerup', end);
    target.removeEventListener('pointercancel', end);
    onEnd(event);
  };
  target.addEventListener('pointermove', onMove);
  target.addEventListener('pointerup', end);
  target.addEventListener('pointercancel', end);
  return () => end({ type: 'pointercancel' });
}

// Whether a key belongs to what is typed in a field.
const typedIn = 'input:not([type=checkbox], [type=radio], [type=range], [type=color]), select, textarea, [contenteditable]';
export const isTyping = target => Boolean(target.closest?.(typedIn));

// What is pressed and would be clicked when let go. Where an answer took it away in between, the click would reach nothing.
const clickable = 'button, summary, label, select, a[href], input[type=checkbox], input[type=radio]';
let pressed = null, released = Promise.resolve(), release = () => {};
document.addEventListener('pointerdown', event => {
  pressed = event.target.closest?.(clickable) ?? null;
  if (pressed) released = new Promise(resolve => { release = resolve; });
}, true);
function letGo() {
  pressed = null;
  release();
}
// The click comes right after the pointer is let go.
for (const kind of ['pointerup', 'pointercancel']) window.addEventListener(kind, () => setTimeout(letGo), true);
window.addEventListener('blur', letGo);

export const isPressed = within => pressed !== null && within.contains(pressed);
export const untilLetGo = within => (isPressed(within) ? released : Promise.resolve());
