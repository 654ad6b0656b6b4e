import { isOutlines } from './trusted';

const svg = (inside: string) =>
  `<svg viewBox="64 64 896 896" focusable="false" fill="currentColor">${inside}</svg>`;

describe('what the page takes as a picture', () => {
  it('takes outlines, however many', () => {
    expect(isOutlines(svg('<path d="M1 2z" /><path d="M3 4z" fill="#fff"></path>'))).toBeTrue();
    expect(isOutlines(svg(''))).toBeTrue();
  });

  it('takes nothing that could act, load or be text', () => {
    for (const bad of [
      '<b>x</b>',
      '',
      svg('<script>1</script>'),
      svg('<path d="M1" onclick="x" />'),
      svg('<image href="x" />'),
      svg('<style>*{}</style>'),
      svg('words'),
      svg('<path d="M1">x</path>'),
      `${svg('')}<img src=x onerror=x>`,
      '<svg onload="x"></svg>',
      '<svg viewBox="0"><a href="x"><path d="M1"/></a></svg>',
    ])
      expect(isOutlines(bad)).withContext(bad).toBeFalse();
  });
});
