/** Style properties that decide how an SVG element looks; they are written into the copy, as a file has no style sheet. */
const kept = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-opacity',
  'fill-opacity',
  'opacity',
  'font-size',
  'font-family',
  'font-weight',
  'text-anchor',
];

function selfContained(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const from = [svg, ...svg.querySelectorAll<SVGElement>('*')];
  const to = [copy, ...copy.querySelectorAll<SVGElement>('*')];
  from.forEach((element, i) => {
    const style = getComputedStyle(element);
    for (const name of kept) to[i].style.setProperty(name, style.getPropertyValue(name));
  });
  const { width, height } = svg.getBoundingClientRect();
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  return new XMLSerializer().serializeToString(copy);
}

const load = (address: string): Promise<HTMLImageElement> =>
  new Promise((resolve, reject) => {
    const image = new Image();
    image.onload = () => resolve(image);
    image.onerror = () => reject(new Error('a part of the card could not be drawn.'));
    image.src = address;
  });

const head = 30;
const parts = (body: HTMLElement): (HTMLCanvasElement | SVGSVGElement)[] =>
  [...body.querySelectorAll<HTMLCanvasElement | SVGSVGElement>('canvas, svg')].filter(
    (p) => !p.parentElement?.closest('svg') && !p.closest('button'),
  );

interface Words {
  text: string;
  x: number;
  y: number;
  colour: string;
  font: { weight: string; size: string; family: string };
}

/** Text outside drawings, as it stands: legends, tables. */
function words(body: HTMLElement): Words[] {
  const box = body.getBoundingClientRect();
  const walker = document.createTreeWalker(body, NodeFilter.SHOW_TEXT);
  const out: Words[] = [];
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const parent = node.parentElement;
    const text = node.textContent?.trim();
    if (!parent || !text || parent.closest('svg, canvas, select, button, .recharts-tooltip-wrapper')) continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    const at = range.getBoundingClientRect();
    // What is scrolled out of the card is not on the picture.
    if (at.bottom < box.top || at.top > box.bottom || at.width === 0) continue;
    const look = getComputedStyle(parent);
    const font = { weight: look.fontWeight, size: look.fontSize, family: look.fontFamily };
    out.push({ text, x: at.left - box.left, y: at.bottom - box.top + head - at.height * 0.22, colour: look.color, font });
  }
  return out;
}

/** Paints a card as it stands on the screen, at twice its size, with its title: drawings, canvases and the text around them. */
export async function cardCanvas(body: HTMLElement, title: string): Promise<HTMLCanvasElement> {
  const scale = 2;
  const box = body.getBoundingClientRect();
  const style = getComputedStyle(document.documentElement);
  const canvas = document.createElement('canvas');
  canvas.width = box.width * scale;
  canvas.height = (box.height + head) * scale;
  const g = canvas.getContext('2d')!;
  g.scale(scale, scale);
  g.fillStyle = style.getPropertyValue('--panel');
  g.fillRect(0, 0, box.width, box.height + head);
  g.fillStyle = style.getPropertyValue('--ink');
  g.font = "600 14px 'Atkinson Hyperlegible Next Variable', sans-serif";
  g.fillText(title, 12, 20);
  for (const part of parts(body)) {
    const at = part.getBoundingClientRect();
    const image =
      part instanceof HTMLCanvasElement ? part : await load(`data:image/svg+xml;charset=utf-8,${encodeURIComponent(selfContained(part))}`);
    if (at.width && at.height) g.drawImage(image, at.left - box.left, at.top - box.top + head, at.width, at.height);
  }
  for (const w of words(body)) {
    g.fillStyle = w.colour;
    g.font = `${w.font.weight} ${w.font.size} ${w.font.family}`;
    g.fillText(w.text, w.x, w.y);
  }
  return canvas;
}

/** The same as a PNG file. */
export const cardPicture = async (body: HTMLElement, title: string): Promise<Blob> => {
  const canvas = await cardCanvas(body, title);
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('the browser gave no picture.'))), 'image/png'),
  );
};

const escaped = (t: string): string => t.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

/** The card as one SVG: its drawings as they are, its canvases as pictures inside, its text as text. */
export function cardDrawing(body: HTMLElement, title: string): Promise<Blob> {
  const box = body.getBoundingClientRect();
  const style = getComputedStyle(document.documentElement);
  const out = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${box.width}" height="${box.height + head}" font-family="sans-serif">`,
    `<rect width="100%" height="100%" fill="${style.getPropertyValue('--panel')}"/>`,
    `<text x="12" y="20" font-size="14" font-weight="600" fill="${style.getPropertyValue('--ink')}">${escaped(title)}</text>`,
  ];
  for (const part of parts(body)) {
    const at = part.getBoundingClientRect();
    const [x, y] = [at.left - box.left, at.top - box.top + head];
    if (part instanceof HTMLCanvasElement)
      out.push(`<image x="${x}" y="${y}" width="${at.width}" height="${at.height}" href="${part.toDataURL()}"/>`);
    else out.push(selfContained(part).replace('<svg', `<svg x="${x}" y="${y}"`));
  }
  for (const w of words(body))
    out.push(
      `<text x="${w.x}" y="${w.y}" font-size="${w.font.size}" font-weight="${w.font.weight}" font-family="${escaped(w.font.family)}" fill="${w.colour}">${escaped(w.text)}</text>`,
    );
  return Promise.resolve(new Blob([...out, '</svg>\n'], { type: 'image/svg+xml' }));
}
