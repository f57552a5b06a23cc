// Pages of PDFs, drawn where they are shown as soon as they come near.
const lib = '/lib/pdfjs';

const documents = new Map();

async function documentAt(address) {
  if (!documents.has(address)) {
    const { getDocument, GlobalWorkerOptions } = await import(`${lib}/build/pdf.min.mjs`);
    GlobalWorkerOptions.workerSrc = `${lib}/build/pdf.worker.min.mjs`;
    documents.set(address, getDocument({
      url: address, cMapUrl: `${lib}/cmaps/`, cMapPacked: true, standardFontDataUrl: `${lib}/standard_fonts/`, useWasm: false, isEvalSupported: false,
    }).promise);
  }
  return documents.get(address);
}

// The trim of the page, as large as it is ever shown here.
async function draw(place, address, width) {
  const [x, y, w, h] = place.dataset.trim.split(' ').map(Number);
  const page = await (await documentAt(address)).getPage(Number(place.dataset.page));
  const scale = width * window.devicePixelRatio / w;
  const viewport = page.getViewport({ scale, offsetX: -x * scale, offsetY: -y * scale });
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [Math.round(w * scale), Math.round(h * scale)];
  await page.render({ canvas, viewport }).promise;
  place.prepend(canvas);
  place.dataset.drawn = 'yes';
}

function failed(place) {
  const words = document.createElement('p');
  words.className = 'quiet';
  words.textContent = 'This page cannot be shown.';
  place.prepend(words);
  place.dataset.drawn = 'no';
}

export function drawPages(within, addresses, width) {
  const watch = new IntersectionObserver(entries => {
    for (const { target } of entries.filter(e => e.isIntersecting)) {
      watch.unobserve(target);
      draw(target, addresses[target.dataset.which], width).catch(() => failed(target));
    }
  }, { root: within, rootMargin: '600px' });
  for (const place of within.querySelectorAll('.file-page')) watch.observe(place);
}
