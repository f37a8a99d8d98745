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

/** Paints a card as it stands on the screen, at twice its size, with its title: drawings, canvases and the text around them. */
export async function cardPicture(body: HTMLElement, title: string): Promise<Blob> {
  const scale = 2;
  const head = 30;
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
  for (const part of body.querySelectorAll<HTMLCanvasElement | SVGSVGElement>('canvas, svg')) {
    if (part.parentElement?.closest('svg')) continue;
    const at = part.getBoundingClientRect();
    const image =
      part instanceof HTMLCanvasElement ? part : await load(`data:image/svg+xml;charset=utf-8,${encodeURIComponent(selfContained(part))}`);
    g.drawImage(image, at.left - box.left, at.top - box.top + head, at.width, at.height);
  }
  // Text outside drawings: legends, tables.
  const walker = document.createTreeWalker(body, NodeFilter.SHOW_TEXT);
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const parent = node.parentElement;
    const text = node.textContent?.trim();
    if (!parent || !text || parent.closest('svg, canvas, select, .recharts-tooltip-wrapper')) continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    const at = range.getBoundingClientRect();
    const look = getComputedStyle(parent);
    g.fillStyle = look.color;
    g.font = `${look.fontWeight} ${look.fontSize} ${look.fontFamily}`;
    g.fillText(text, at.left - box.left, at.bottom - box.top + head - at.height * 0.22);
  }
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('the browser gave no picture.'))), 'image/png'),
  );
}
