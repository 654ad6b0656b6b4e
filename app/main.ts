import { bootstrapApplication } from '@angular/platform-browser';
import { appConfig } from './app.config';
import { Root } from './shell/root';
import { trustOwnScripts } from './trusted';

trustOwnScripts();
bootstrapApplication(Root, appConfig).catch((e: unknown) => console.error(e));
