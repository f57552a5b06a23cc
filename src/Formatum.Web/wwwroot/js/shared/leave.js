// Leaves for another page, or loads this one anew. What is clicked in the moment before that comes would be begun and lost: nothing takes it any more.
// In milliseconds.
const patience = 4000;

export function leavePage(href) {
  document.body.inert = true;
  // Where somebody is asked and chooses to stay, the page takes up again.
  setTimeout(() => { document.body.inert = false; }, patience);
  if (href) location.href = href;
  else location.reload();
}

// The browser may show the page again as it was left.
window.addEventListener('pageshow', () => { document.body.inert = false; });
