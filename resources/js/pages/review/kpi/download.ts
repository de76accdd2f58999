const PAINT = [
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
    'paint-order',
];

/** The drawing as a file of its own: what the style sheets say is written into it. */
function standalone(svg: SVGSVGElement, title: string): string {
    const copy = svg.cloneNode(true) as SVGSVGElement;
    const drawn = [svg, ...svg.querySelectorAll('*')];
    [copy, ...copy.querySelectorAll('*')].forEach((element, index) => {
        const style = getComputedStyle(drawn[index] ?? svg);
        PAINT.forEach((name) => element.setAttribute(name, style.getPropertyValue(name)));
        element.removeAttribute('class');
        element.removeAttribute('style');
    });
    copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
    const { width, height } = svg.viewBox.baseVal;
    copy.setAttribute('width', String(width));
    copy.setAttribute('height', String(height));
    const ground = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
    ground.setAttribute('width', '100%');
    ground.setAttribute('height', '100%');
    ground.setAttribute('fill', getComputedStyle(document.documentElement).backgroundColor);
    copy.prepend(ground);
    const name = document.createElementNS('http://www.w3.org/2000/svg', 'title');
    name.textContent = title;
    copy.prepend(name);
    return new XMLSerializer().serializeToString(copy);
}

function hand(address: string, file: string): void {
    const link = document.createElement('a');
    link.href = address;
    link.download = file;
    link.click();
}

export function asSvg(svg: SVGSVGElement, title: string, file: string): void {
    const address = URL.createObjectURL(new Blob([standalone(svg, title)], { type: 'image/svg+xml' }));
    hand(address, `${file}.svg`);
    window.setTimeout(() => URL.revokeObjectURL(address), 1000);
}

/** Twice as large as on the screen, so that it prints well. */
export async function asPng(svg: SVGSVGElement, title: string, file: string): Promise<void> {
    const image = new Image();
    image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(standalone(svg, title))}`;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = image.width * 2;
    canvas.height = image.height * 2;
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
    hand(canvas.toDataURL('image/png'), `${file}.png`);
}
