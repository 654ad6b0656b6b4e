import type { PaperStep, SheetPaper } from './sheet-paper';
import type { StepPicture } from '../fitting/step-shape';
import { PICTURE_CSS, shapesSvg } from '../fitting/step-svg';
import { formatDay } from '@core/quantity/dates';

const esc = (s: string): string =>
  s.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

/**
 * The sheet as one file that needs nothing else: words, drawings, its own script. It asks only what proves a step, keeps
 * what is entered where the browser lets it, and gives back a small file or a code.
 * @param script what makes it answer (app/fitter/page.ts, bundled)
 */
export function sheetHtml(p: SheetPaper, script: string): string {
  const stills = new Map<string, string>();
  const steps = p.steps.map((s) => stepHtml(s, stills)).join('');
  const data = JSON.stringify({
    case: p.case,
    tag: p.tag,
    sheet: p.digest,
    day: p.day,
    steps: p.steps.map((s) => ({
      id: s.id,
      asks: s.asks.map((a) => ({
        id: a.id,
        ...(a.from === undefined ? {} : { from: a.from }),
        ...(a.to === undefined ? {} : { to: a.to }),
      })),
      instead: s.instead.map((i) => i.name),
    })),
  }).replace(/</g, '\\u003c');
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<title>${esc(`Fitting sheet ${p.tag}`)}</title><style>${CSS}${PICTURE_CSS}</style></head>
<body>
<svg width="0" height="0" aria-hidden="true" style="position:absolute">${[...stills.values()].join('')}</svg>
<header><h1>${esc(p.name)}</h1>
<p>${esc([`Case ${p.tag}`, p.engine, p.design, p.kit].filter(Boolean).join(' · '))}<br>${esc(`${p.to ? `For ${p.to}. ` : ''}From ${p.by}, ${formatDay(p.day, 'named')}.`)}</p>
<p class="warn">The vehicle maker’s service information, local rules and qualified people come first. This sheet adds to them.</p>
${p.caution ? `<p class="warn">${esc(p.caution)}</p>` : ''}
<p>Press <b>Done</b> at each step when it is proved, in the order in which you do them. If one was left out or done otherwise, say so: it helps you more than it costs.</p>
<p id="keeps" role="status"></p></header>
<div id="bar" role="status" aria-live="polite"></div>
<main>
<details><summary>Torques, tools, parts</summary>
<table><caption>Torques</caption><tbody>${p.torques.map((t) => `<tr><td>${t.number}</td><td>${esc(t.fastener)}</td><td>${esc(t.words)}</td></tr>`).join('')}</tbody></table>
<h2>Tools</h2><ul>${p.tools.map((t) => `<li>${esc(t)}</li>`).join('')}</ul>
<h2>Parts</h2><ul>${p.parts.map((t) => `<li>${esc(t)}</li>`).join('')}</ul>
<h2>Policy that shaped this sheet</h2><ul>${p.rules.map((t) => `<li>${esc(t)}</li>`).join('')}</ul></details>
${steps}
<section id="end"><h2>Send it back</h2>
<label>Your name <input id="fitter" maxlength="120" autocomplete="name"></label>
<p id="left"></p>
<button type="button" id="save">Save the filled sheet</button>
<p>Or read this code out, type it, or let it be photographed. It says the same, without remarks:</p>
<p id="code" tabindex="0" aria-label="Code"></p><div id="qr"></div></section>
</main>
<noscript><p class="warn">This browser runs no scripts: the sheet can be read, but not filled in here.</p></noscript>
<script type="application/json" id="sheet">${data}</script>
<script>${script.replace(/<\/script/gi, '<\\/script')}</script>
</body></html>`;
}

function stepHtml(s: PaperStep, stills: Map<string, string>): string {
  const name = `s${s.number}`;
  const way = (value: string, words: string) =>
    `<label class="way"><input type="radio" name="${name}" value="${value}">${words}</label>`;
  const asks = s.asks
    .map((a) => {
      const hint = a.wanted
        ? ` <small>(${esc(a.wanted)})</small>`
        : a.unit
          ? ` <small>(${esc(a.unit)})</small>`
          : '';
      return `<label>${esc(a.wording)}${hint} <input inputmode="${a.whole ? 'numeric' : 'decimal'}" data-ask="${esc(a.id)}" autocomplete="off"></label>`;
    })
    .join('');
  const tools = s.instead.length
    ? `<fieldset class="tools"><legend>Used</legend><label><input type="radio" name="t${s.number}" value="" checked>${esc(s.tool)}</label>${s.instead.map((i, k) => `<label><input type="radio" name="t${s.number}" value="${k}">${esc(i.name)} <small>▲ ${esc(i.risk)}</small></label>`).join('')}</fieldset>`
    : s.tool
      ? `<p><b>Tool</b> ${esc(s.tool)}</p>`
      : '';
  return `${s.phase ? `<h2>${esc(s.phase)}</h2>` : ''}<article data-step="${esc(s.id)}" aria-labelledby="${name}">
<h3 id="${name}"><span>${s.number}</span> ${esc(s.text)}</h3>
${s.caution ? `<p class="warn">${esc(s.caution)}</p>` : ''}${s.picture ? pictureHtml(s.picture, stills) : ''}
${tools}${s.torque ? `<p><b>Torque</b> ${esc(s.torque)}</p>` : ''}${s.proof ? `<p>${esc(s.proof)}</p>` : ''}
${s.after ? `<p><small>After ${esc(s.after)}</small></p>` : ''}${
    s.fault || s.before.length
      ? `<details><summary>Why</summary>${[s.fault, ...s.before]
          .filter(Boolean)
          .map((t) => `<p>${esc(t)}</p>`)
          .join('')}</details>`
      : ''
  }
<div class="ask">${asks}</div>
<div class="ways" role="group" aria-label="Step ${s.number}">${way('done', 'Done')}${way('skipped', 'Not done')}${way('wrong', 'Otherwise')}</div>
<label class="place" hidden>Done as number <input inputmode="numeric" data-place></label>
<details><summary>Remark</summary><textarea data-note maxlength="1000" rows="2" aria-label="Remark on step ${s.number}"></textarea></details>
</article>`;
}

/** What stands still is in the file once a stage. */
function pictureHtml(p: StepPicture, stills: Map<string, string>): string {
  const { x, y, width, height } = p.box;
  const id = `b-${p.baseId}`;
  if (!stills.has(id))
    stills.set(
      id,
      `<symbol id="${id}" viewBox="${x} ${y} ${width} ${height}" class="p" overflow="visible">${shapesSvg(p.base, p.textMm, false)}</symbol>`,
    );
  const loop = p.loop[0];
  const loopId = `l-${p.baseId}`;
  if (loop && !stills.has(loopId))
    stills.set(
      loopId,
      `<symbol id="${loopId}" viewBox="${x} ${y} ${width} ${height}" overflow="visible">${loop.tag === 'path' ? `<path d="${loop.d}"/>` : ''}</symbol>`,
    );
  const at = `x="${x}" y="${y}" width="${width}" height="${height}"`;
  return `<svg class="p" role="img" aria-label="${esc(p.title)}" viewBox="${x} ${y} ${width} ${height}"><use href="#${id}" ${at}/>${loop ? `<use class="${loop.is}" href="#${loopId}" ${at}/>` : ''}${shapesSvg(p.over, p.textMm, false)}</svg>`;
}

const CSS = `:root{color-scheme:light}*{box-sizing:border-box}body{margin:0;font:17px/1.4 system-ui,sans-serif;color:#1e2a2b;background:#f4f1ea}
header,main{max-width:640px;margin:auto;padding:12px}h1{font-size:1.4em;margin:0 0 4px}h2{font-size:1.15em;margin:22px 0 8px;border-bottom:2px solid #1e2a2b}
h3{font-size:1.05em;margin:0 0 6px}h3 span{display:inline-block;min-width:1.6em;font-weight:400}p{margin:4px 0}small{color:#4a5655}
article{background:#fff;border:1px solid #cfc8b8;border-left:6px solid #cfc8b8;border-radius:6px;padding:10px;margin:0 0 10px}
article[data-went=done]{border-left-color:#1f6f5f}article[data-went=skipped],article[data-went=wrong]{border-left-color:#8a5a00}
.warn{border-left:5px solid #8a5a00;background:#f6ecd6;padding:6px 8px}.warn:before{content:"▲ "}
svg.p{display:block;width:100%;max-height:300px;background:#fbfaf6;border-radius:4px}
[hidden]{display:none!important}label{display:block;margin:6px 0}input,textarea,button{font:inherit}input:not([type=radio]),textarea{width:100%;padding:8px;border:1px solid #6b7675;border-radius:4px}
.ways{display:flex;gap:6px;margin:6px 0}.way{flex:1;margin:0;display:flex;align-items:center;justify-content:center;gap:4px;min-height:48px;font-size:.9em;white-space:nowrap;border:1px solid #6b7675;border-radius:6px;background:#f4f1ea}
.way input{margin:0}.way:has(:checked){background:#1f6f5f;color:#fff;font-weight:600}.tools{border:1px solid #cfc8b8;border-radius:4px}
button{min-height:52px;width:100%;border:0;border-radius:6px;background:#1f6f5f;color:#fff;font-weight:600}
#bar{position:sticky;top:0;z-index:1;background:#1e2a2b;color:#fff;text-align:center;padding:4px}#code{font:600 1.05em/1.7 ui-monospace,monospace;overflow-wrap:anywhere;background:#fff;padding:8px}
#qr svg{width:100%;max-width:320px;display:block;margin:auto;background:#fff}table{border-collapse:collapse;width:100%}td{border-bottom:1px solid #cfc8b8;padding:3px 6px 3px 0;vertical-align:top}
input[aria-invalid=true]{border:2px solid #8a5a00}:focus-visible{outline:3px solid #1f6f5f;outline-offset:2px}summary{cursor:pointer;min-height:28px}`;
