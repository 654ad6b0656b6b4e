import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { ASKED_WORDS, spokenText } from '../app/messages/advice';
import { demoBoxes } from '../demo/boxes/boxes';
import { demoCalls } from '../demo/calls';
import { demoScenario } from '../demo/scenario';

writeFileSync('demo/demo.json', `${JSON.stringify(demoScenario(), null, 1)}\n`);
writeFileSync(
  'demo/calls.json',
  `${JSON.stringify(demoCalls({ spoken: spokenText, asked: ASKED_WORDS }), null, 1)}\n`,
);
const { boxes, photos, captures } = demoBoxes();
writeFileSync('demo/boxes.json', `${JSON.stringify(boxes, null, 1)}\n`);
for (const folder of ['demo/photos', 'demo/captures']) {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder);
}
for (const { ref, png } of photos) writeFileSync(`demo/photos/${ref.hash}.png`, png);
for (const { ref, bytes } of captures) writeFileSync(`demo/captures/${ref.hash}.zip`, bytes);
console.log(
  `demo/demo.json, calls.json, boxes.json, ${photos.length} photographs and ${captures.length} captures written`,
);
