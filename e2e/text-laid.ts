/** What is wrong with how text is laid on a page: one line each, "overlap" or "cut". Runs in the page. */
export function textTrouble(): string[] {
  type Line = { node: Node; element: Element; text: string; full: DOMRect; shown: DOMRect };
  const styles = new Map<Element, CSSStyleDeclaration>();
  const styleOf = (e: Element): CSSStyleDeclaration => {
    let s = styles.get(e);
    if (!s) styles.set(e, (s = getComputedStyle(e)));
    return s;
  };
  const clips = (value: string): boolean => value !== 'visible';
  const scrolls = (value: string): boolean => value === 'auto' || value === 'scroll';
  const trouble: string[] = [];
  const lines: Line[] = [];
  const short = (t: string): string => t.trim().replace(/\s+/g, ' ').slice(0, 50);

  /** The part of a line that all around it let through; what is cut off with nothing to say so, and cannot be scrolled to, is told. */
  function shownOf(element: Element, full: DOMRect, text: string): DOMRect | undefined {
    let [left, top, right, bottom] = [full.left, full.top, full.right, full.bottom];
    let told = false;
    for (let e: Element | null = element; e && e !== document.documentElement; e = e.parentElement) {
      const s = styleOf(e);
      if (s.display === 'none' || s.visibility === 'hidden' || Number(s.opacity) === 0) return undefined;
      if (s.clipPath === 'inset(50%)') return undefined;
      if (!clips(s.overflowX) && !clips(s.overflowY)) continue;
      const b = e.getBoundingClientRect();
      // What the library scrolls itself: a table's head with its body, a bar of tabs that has more behind a button.
      if (e.matches('.ant-table-header, .ant-tabs-nav-wrap')) told = true;
      if (s.textOverflow === 'ellipsis' || s.getPropertyValue('-webkit-line-clamp') !== 'none') told = true;
      if (clips(s.overflowX)) {
        if (scrolls(s.overflowX)) told = true;
        const cut = Math.max(b.left - left, right - b.right);
        if (cut > 2 && !told && b.width > 1 && b.right > left && b.left < right)
          trouble.push(`cut ${Math.round(cut)} px: “${short(text)}” in ${name(e)}`);
        [left, right] = [Math.max(left, b.left), Math.min(right, b.right)];
      }
      if (clips(s.overflowY)) {
        if (scrolls(s.overflowY)) told = true;
        const cut = Math.max(b.top - top, bottom - b.bottom);
        // Less than a third of a line's height is what lies above and below its letters.
        if (cut > full.height / 3 && !told && b.height > 1 && b.bottom > top && b.top < bottom)
          trouble.push(`cut ${Math.round(cut)} px in height: “${short(text)}” in ${name(e)}`);
        [top, bottom] = [Math.max(top, b.top), Math.min(bottom, b.bottom)];
      }
      if (right - left < 1 || bottom - top < 1) return undefined;
      if (s.position === 'fixed') break;
    }
    [left, right] = [Math.max(0, left), Math.min(innerWidth, right)];
    [top, bottom] = [Math.max(0, top), Math.min(innerHeight, bottom)];
    return right - left < 1 || bottom - top < 1
      ? undefined
      : new DOMRect(left, top, right - left, bottom - top);
  }
  const name = (e: Element): string =>
    `${e.tagName.toLowerCase()}${e.id ? `#${e.id}` : ''}${typeof e.className === 'string' && e.className ? `.${e.className.trim().split(/\s+/)[0] ?? ''}` : ''}`;

  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const element = node.parentElement;
    const text = node.textContent ?? '';
    if (!element || text.trim() === '' || element.closest('svg, script, style, option, .hidden-text'))
      continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    for (const full of Array.from(range.getClientRects())) {
      if (full.width < 1 || full.height < 1) continue;
      const shown = shownOf(element, full, text);
      if (shown) lines.push({ node, element, text, full, shown });
    }
  }
  /** Whether what is on top hides what is below: something opaque lies between them. */
  function hidden(a: Line, b: Line, x: number, y: number): boolean {
    const stack = document.elementsFromPoint(x, y);
    const at = (l: Line): number => stack.findIndex((e) => e === l.element || e.contains(l.element));
    const [ia, ib] = [at(a), at(b)];
    if (ia < 0 || ib < 0) return true;
    const [upper, lower] = ia < ib ? [a, b] : [b, a];
    return stack.some(
      (e) =>
        !e.contains(lower.element) &&
        (e === upper.element || e.contains(upper.element)) &&
        !/^rgba\(.*, 0\)$|^transparent$/.test(styleOf(e).backgroundColor),
    );
  }
  for (let i = 0; i < lines.length; i++)
    for (let k = i + 1; k < lines.length; k++) {
      const [a, b] = [lines[i]!, lines[k]!];
      // What is shortened is measured twice: as far as it is shown, and whole.
      if (a.node === b.node) continue;
      const width = Math.min(a.shown.right, b.shown.right) - Math.max(a.shown.left, b.shown.left);
      if (width <= 2) continue;
      const height = Math.min(a.shown.bottom, b.shown.bottom) - Math.max(a.shown.top, b.shown.top);
      // Lines of one paragraph may touch by what lies above and below their letters.
      if (height <= Math.min(a.full.height, b.full.height) / 3) continue;
      const x = Math.max(a.shown.left, b.shown.left) + width / 2;
      const y = Math.max(a.shown.top, b.shown.top) + height / 2;
      if (hidden(a, b, x, y)) continue;
      trouble.push(
        `overlap: “${short(a.text)}” (${name(a.element)}) with “${short(b.text)}” (${name(b.element)})`,
      );
    }
  const wide = document.documentElement.scrollWidth - innerWidth;
  if (wide > 1) trouble.push(`the page is ${wide} px wider than its window`);
  return [...new Set(trouble)];
}
