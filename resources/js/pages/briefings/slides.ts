import type { Schemas } from '@/api/client';
import { monthAndYear } from '@/composables/usePeriods';
import { SPAN_PHRASES } from '@/words';
import { saveBlob } from './files';
import type PptxGenJS from 'pptxgenjs';

/** In inches: a wide slide, its margins, and a twelfth of what lies between them. */
const SLIDE = { width: 13.333, height: 7.5, margin: 0.45, top: 1.05 };
const TWELFTH = (SLIDE.width - 2 * SLIDE.margin) / 12;
const GUTTER = 0.16;
const FONT = 'Source Sans 3';
const SHARP = 2;

/** Texts of a piece as it stands on the page, in the order in which they are read. */
function wordsOf(section: HTMLElement): string[] {
    const found: string[] = [];
    for (const each of section.querySelectorAll<HTMLElement>('p, li, h2, td, th, [role=row]')) {
        if (
            each.closest('svg') === null &&
            !each.classList.contains('sr-only') &&
            each.closest('.sr-only, [aria-hidden=true]') === null &&
            (each.tagName === 'LI' || each.closest('li') === null) &&
            (each.getAttribute('role') === 'row' || each.closest('[role=row]') === null)
        ) {
            // prettier-ignore
            const text = each.innerText.replace(/\s+/g, ' ').trim();
            if (text !== '') {
                found.push(text);
            }
        }
    }
    return found;
}

/** What is drawn, as a picture: colours are those of the page, worked out. */
async function pictureOf(svg: SVGSVGElement): Promise<string | null> {
    const box = svg.getBoundingClientRect();
    if (box.width < 4 || box.height < 4) {
        return null;
    }
    const copy = svg.cloneNode(true) as SVGSVGElement;
    const [from, to] = [
        [svg, ...svg.querySelectorAll<SVGElement>('*')],
        [copy, ...copy.querySelectorAll<SVGElement>('*')],
    ];
    from.forEach((each, at) => {
        const style = getComputedStyle(each);
        const target = to[at];
        for (const name of [
            'fill',
            'stroke',
            'stroke-width',
            'stroke-dasharray',
            'opacity',
            'fill-opacity',
            'font-family',
            'font-size',
            'font-weight',
            'text-anchor',
            'paint-order',
            'letter-spacing',
            'stroke-linejoin',
            'stroke-linecap',
        ]) {
            // prettier-ignore
            target?.setAttribute(name, style.getPropertyValue(name));
        }
    });
    // Attributes and not styles: what is inline is refused here, inside of pictures too.
    for (const each of to) {
        each.removeAttribute('class');
        each.removeAttribute('style');
    }
    copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
    copy.setAttribute('width', String(box.width));
    copy.setAttribute('height', String(box.height));
    const image = new Image();
    image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(new XMLSerializer().serializeToString(copy))}`;
    await image.decode();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [Math.ceil(box.width * SHARP), Math.ceil(box.height * SHARP)];
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
    return canvas.toDataURL('image/png');
}

/**
 * A briefing as slides: a band a slide, each piece with its words as text and its drawings as pictures.
 *
 * @param bands where the page stands on the screen
 */
export async function makeSlides(page: Schemas['BriefingPage'], bands: HTMLElement | null): Promise<void> {
    const { default: Pptx } = await import('pptxgenjs');
    const deck = new Pptx();
    deck.layout = 'LAYOUT_WIDE';
    deck.title = page.name;
    const first = deck.addSlide();
    first.addText(page.name, { x: SLIDE.margin, y: 2.5, w: SLIDE.width - 2 * SLIDE.margin, h: 1, fontFace: 'Source Serif 4', fontSize: 44, bold: true, color: '16242E' }); // prettier-ignore
    first.addText(`${page.unitName}, ${monthAndYear(page.period)}, ${SPAN_PHRASES[page.span]}${page.issue ? `. Issue ${page.issue.number}` : ''}`, { x: SLIDE.margin, y: 3.5, w: SLIDE.width - 2 * SLIDE.margin, h: 0.6, fontFace: FONT, fontSize: 18, color: '47555E' }); // prettier-ignore
    const shown = [...(bands?.querySelectorAll<HTMLElement>('.band') ?? [])];
    for (const together of slidesOf(shown)) {
        const slide = beginSlide(deck, page);
        let y = SLIDE.top;
        for (const at of together) {
            y = (await addBand(slide, page.bands[at] ?? [], shown[at], y)) + 0.15;
        }
    }
    // Not by the library's own link, whose inline style is refused here.
    saveBlob((await deck.write({ outputType: 'blob' })) as Blob, `${page.code}-${page.period}.pptx`);
}

/** Bands that have room on one slide together, by their place on the page. */
function slidesOf(bands: readonly HTMLElement[]): number[][] {
    const slides: number[][] = [];
    let left = 0;
    bands.forEach((band, at) => {
        const box = band.getBoundingClientRect();
        const height = (box.height / Math.max(1, box.width)) * (SLIDE.width - 2 * SLIDE.margin);
        if (slides.length === 0 || height > left) {
            slides.push([]);
            left = SLIDE.height - SLIDE.top - 0.5;
        }
        slides.at(-1)?.push(at);
        left -= height;
    });
    return slides;
}

function beginSlide(deck: PptxGenJS, page: Schemas['BriefingPage']): PptxGenJS.Slide {
    const slide = deck.addSlide();
    slide.addText(`${page.name}, ${monthAndYear(page.period)}`, { x: SLIDE.margin, y: 0.3, w: SLIDE.width - 2 * SLIDE.margin, h: 0.5, fontFace: 'Source Serif 4', fontSize: 22, bold: true, color: '16242E', margin: 0 }); // prettier-ignore
    slide.addShape('line', { x: SLIDE.margin, y: 0.88, w: SLIDE.width - 2 * SLIDE.margin, h: 0, line: { color: '16242E', width: 1.2 } }); // prettier-ignore
    slide.slideNumber = { x: SLIDE.width - 1, y: SLIDE.height - 0.4, fontFace: FONT, fontSize: 10, color: '626C71' };
    return slide;
}

/** @returns where what follows can stand */
async function addBand(
    slide: PptxGenJS.Slide,
    band: Schemas['Piece'][],
    shown: HTMLElement | undefined,
    top: number,
): Promise<number> {
    let lowest = top;
    const sections = [...(shown?.querySelectorAll<HTMLElement>('[data-piece]') ?? [])];
    let from = 0;
    for (const [at, piece] of band.entries()) {
        const section = sections[at];
        const area = { x: SLIDE.margin + from * TWELFTH, w: piece.width * TWELFTH - GUTTER };
        from += piece.width;
        if (section === undefined) {
            continue;
        }
        const words = wordsOf(section);
        let y = top;
        const [head, ...rest] = words;
        const title = section.querySelector('h2')?.innerText.trim() ?? '';
        if (title !== '') {
            slide.addText(title, {
                ...area,
                y,
                h: 0.35,
                fontFace: FONT,
                fontSize: 15,
                bold: true,
                color: '16242E',
                margin: 0,
            });
            y += 0.4;
        }
        const body = (head === title ? rest : words).filter((text) => text !== title);
        const drawings = [...section.querySelectorAll<SVGSVGElement>('svg')].filter((svg) => svg.parentElement?.closest('svg') === null && svg.getBoundingClientRect().width > 60); // prettier-ignore
        const isFigure = piece.kind === 'figure' || piece.kind === 'scale';
        if (isFigure && body[0] !== undefined) {
            slide.addText(body[0], { ...area, y, h: 0.55, fontFace: 'Source Serif 4', fontSize: 26, bold: true, color: '16242E', margin: 0 }); // prettier-ignore
            y += 0.6;
        }
        // Rows of a table bring their own drawings with them; a dozen small pictures would say nothing on a slide.
        for (const svg of drawings.slice(0, drawings.length > 6 ? 0 : 4)) {
            const picture = await pictureOf(svg);
            const box = svg.getBoundingClientRect();
            if (picture !== null) {
                const height = Math.min((area.w / box.width) * box.height, SLIDE.height - y - 0.6);
                if (height > 0.15) {
                    slide.addImage({ data: picture, x: area.x, y, w: (height / box.height) * box.width, h: height, altText: svg.getAttribute('aria-label') ?? title }); // prettier-ignore
                    y += height + 0.1;
                }
            }
        }
        const left = body.slice(isFigure ? 1 : 0);
        const room = SLIDE.height - y - 0.5;
        if (left.length > 0 && room > 0.3) {
            const size = piece.kind === 'commentary' ? 18 : left.length > 14 ? 9 : 12;
            const lines = left.slice(0, Math.max(1, Math.floor((room * 72) / (size * 1.3))));
            const perLine = (area.w * 72) / (size * 0.5);
            const needed = lines.reduce((sum, text) => sum + Math.ceil(text.length / perLine), 0) * ((size * 1.3) / 72) + 0.05; // prettier-ignore
            slide.addText(
                lines.map((text) => ({ text, options: { breakLine: true } })),
                {
                    ...area,
                    y,
                    h: Math.min(room, needed),
                    fontFace: FONT,
                    fontSize: size,
                    color: '47555E',
                    valign: 'top',
                    margin: 0,
                    fit: 'shrink',
                },
            );
            y += Math.min(room, needed);
        }
        lowest = Math.max(lowest, y);
    }
    return lowest;
}
