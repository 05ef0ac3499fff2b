/*
 * A chart as a picture of its own. Styles that come from the page are written into a copy of it, so
 * that it looks the same wherever it is opened.
 */

const WRITTEN = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'stroke-linejoin',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'font-style',
  'text-anchor',
] as const;

/** The chart as an SVG file. */
export function svgText(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const from = [svg, ...svg.querySelectorAll<SVGElement>('*')];
  const to = [copy, ...copy.querySelectorAll<SVGElement>('*')];
  from.forEach((element, k) => {
    const style = getComputedStyle(element);
    for (const name of WRITTEN) to[k].style.setProperty(name, style.getPropertyValue(name));
  });
  for (const hidden of copy.querySelectorAll('[data-screen-only]')) hidden.remove();
  const { width, height } = svg.getBoundingClientRect();
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(Math.round(width)));
  copy.setAttribute('height', String(Math.round(height)));
  const paper = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  paper.setAttribute('width', '100%');
  paper.setAttribute('height', '100%');
  paper.setAttribute('fill', getComputedStyle(document.body).backgroundColor);
  copy.prepend(paper);
  return new XMLSerializer().serializeToString(copy);
}

/** The chart as a PNG picture, at twice its size on the screen. */
export async function pngOf(svg: SVGSVGElement): Promise<Blob> {
  const { width, height } = svg.getBoundingClientRect();
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgText(svg))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(width * 2);
  canvas.height = Math.round(height * 2);
  const pen = canvas.getContext('2d');
  if (!pen) throw new Error('This browser cannot draw pictures.');
  pen.scale(2, 2);
  pen.drawImage(image, 0, 0, width, height);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be made.'))),
      'image/png',
    ),
  );
}
