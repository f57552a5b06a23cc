// Words for the person, at the foot of the page. They leave by themselves, unless something is still to be done about them.

const holder = document.getElementById('notices');
const most = 3, seconds = text => Math.min(20, 5 + text.length / 16);

// Shows a message; the same one again counts up instead. Gives a function that takes it away.
export function tell(message, { stays = false, actions = [] } = {}) {
  const same = [...holder.children].find(notice => notice.dataset.message === message);
  const notice = same ?? make(message, actions);
  if (same) notice.querySelector('.notice-count').textContent = ` (${notice.dataset.count = Number(notice.dataset.count) + 1} times)`;
  clearTimeout(Number(notice.dataset.timer));
  notice.toggleAttribute('data-stays', stays);
  if (!stays) notice.dataset.timer = setTimeout(() => leave(notice), seconds(message) * 1000);
  return () => leave(notice);
}

function leave(notice) {
  // Whoever is reading it, or is about to press its button, keeps it.
  if (!notice.matches(':hover, :focus-within')) notice.remove();
  else for (const end of ['pointerleave', 'focusout']) notice.addEventListener(end, () => setTimeout(() => leave(notice), 1500), { once: true });
}

function make(message, actions) {
  const notice = document.createElement('div');
  notice.className = 'notice';
  Object.assign(notice.dataset, { message, count: 1 });
  const words = document.createElement('span'), count = document.createElement('span');
  words.textContent = message;
  count.className = 'notice-count';
  notice.append(words, count, ...actions.map(([label, run]) => button(label, () => {
    notice.remove();
    run();
  })), button('Close', () => notice.remove()));
  // What somebody still has to do something about makes room for nothing.
  for (let passing; holder.children.length >= most && (passing = holder.querySelector('.notice:not([data-stays])'));) passing.remove();
  holder.append(notice);
  return notice;
}

function button(label, run) {
  const made = document.createElement('button');
  made.type = 'button';
  made.textContent = label;
  made.addEventListener('click', run);
  return made;
}

// Tells when the page that comes next is there.
export function tellAfterwards(message) {
  sessionStorage.setItem('tell', message);
}

if (sessionStorage.getItem('tell')) {
  tell(sessionStorage.getItem('tell'));
  sessionStorage.removeItem('tell');
}
