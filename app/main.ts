import { bootstrapApplication } from '@angular/platform-browser';
import { appConfig } from './app.config';
import { Root } from './shell/root';
import { trustOwnScripts } from './trusted';

// From here on the page's own scripts run: openings are measured from this mark.
performance.mark('hs:scripts');
trustOwnScripts();
bootstrapApplication(Root, appConfig).catch((e: unknown) => console.error(e));
