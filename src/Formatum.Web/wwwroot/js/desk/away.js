// Says where the eye is that the server does not answer, once it has not for a while.
const after = 2000, words = 'The server does not answer. What you do is kept here.';
const badge = document.getElementById('away-words');
let timer = null, where = null;

function place() {
  const { x, y } = where();
  badge.style.transform = `translate(${x}px, ${y}px)`;
}

// Something is asked; whereOf gives a place in the window, to say so beside it.
export function waitsFor(whereOf) {
  where = whereOf;
  if (!badge.hidden) place();
  timer ??= setTimeout(() => {
    badge.textContent = words;
    badge.hidden = false;
    place();
  }, after);
}

export function isAnswered() {
  clearTimeout(timer);
  timer = null;
  badge.hidden = true;
}
