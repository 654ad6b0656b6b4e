import qrcode from 'qrcode-generator';

/** A text as a square code: medium correction, a free margin of four modules (ISO/IEC 18004). Its side in modules, and the outline of what is dark. */
export function squareModules(text: string): { side: number; dark: string } {
  const code = qrcode(0, 'M');
  code.addData(text);
  code.make();
  const [n, margin] = [code.getModuleCount(), 4];
  const dark: string[] = [];
  for (let y = 0; y < n; y++)
    for (let x = 0; x < n; x++) if (code.isDark(y, x)) dark.push(`M${x + margin} ${y + margin}h1v1h-1z`);
  return { side: n + 2 * margin, dark: dark.join('') };
}

/** A text as a square code, for paper. */
export function squareCode(text: string): string {
  const { side, dark } = squareModules(text);
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${side} ${side}" width="${side}" height="${side}"><rect width="${side}" height="${side}" fill="#ffffff"/><path d="${dark}" fill="#000000"/></svg>`;
}
