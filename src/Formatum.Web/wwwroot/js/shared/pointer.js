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
export const isTyping = target => Boolean(target.closest?.('input:not([type=checkbox], [type=radio], [type=range], [type=color]), select, textarea, [contenteditable]'));
