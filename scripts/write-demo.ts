import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { ASKED_WORDS, spokenText } from '../app/messages/advice';
import { demoBoxes } from '../demo/boxes/boxes';
import { demoCalls } from '../demo/calls';
import { ownDrive } from '../demo/own-drive';
import { demoScenario } from '../demo/scenario';
import { shipped } from '../demo/shipped';

const { boxes, photos, captures } = demoBoxes();
const calls = demoCalls({ spoken: spokenText, asked: ASKED_WORDS });
for (const [name, content] of Object.entries(shipped({ demo: demoScenario(), calls, boxes })))
  writeFileSync(`demo/${name}.json`, `${JSON.stringify(content, null, 1)}\n`);
for (const folder of ['demo/photos', 'demo/captures']) {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder);
}
for (const { ref, png } of photos) writeFileSync(`demo/photos/${ref.hash}.png`, png);
for (const { ref, bytes } of captures) writeFileSync(`demo/captures/${ref.hash}.zip`, bytes);
const { png, ...own } = ownDrive();
writeFileSync('demo/own-drive.png', png);
writeFileSync('demo/own-drive.json', `${JSON.stringify(own, null, 1)}\n`);
console.log(
  `demo/demo.json, calls.json, boxes.json, judged.json, ${photos.length} photographs and ${captures.length} captures written`,
);
