import {
  type ApplicationConfig,
  provideBrowserGlobalErrorListeners,
  inject,
  isDevMode,
  provideZonelessChangeDetection,
} from '@angular/core';
import {
  type NavigationError,
  provideRouter,
  type Routes,
  withComponentInputBinding,
  withNavigationErrorHandler,
} from '@angular/router';
import { provideServiceWorker } from '@angular/service-worker';
import { CheckCircleFill, ExclamationCircleFill, InfoCircleFill } from '@ant-design/icons-angular/icons';
import { provideNzIcons } from 'ng-zorro-antd/icon';
import { Fetching } from './commands/fetching';
import { WelcomePage } from './shell/welcome-page';
import { STATION_ROUTES } from './stations';
import { styled } from './ui/controls-styles';

const routes: Routes = [
  {
    path: 'case/:id',
    loadComponent: () => styled(() => import('./shell/case-page').then((m) => m.CasePage)),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'call' },
      ...STATION_ROUTES,
      {
        path: 'drive',
        loadComponent: () => styled(() => import('./drive/drive-page').then((m) => m.DrivePage)),
      },
      {
        path: 'trace',
        loadComponent: () => styled(() => import('./stations/trace/trace-page').then((m) => m.TracePage)),
      },
    ],
  },
  {
    path: 'drive',
    loadComponent: () => styled(() => import('./shell/free-drive').then((m) => m.FreeDrive)),
    children: [{ path: '', loadComponent: () => import('./drive/drive-page').then((m) => m.DrivePage) }],
  },
  {
    path: 'trace',
    loadComponent: () => styled(() => import('./shell/free-drive').then((m) => m.FreeDrive)),
    children: [
      { path: '', loadComponent: () => import('./stations/trace/trace-page').then((m) => m.TracePage) },
    ],
  },
  {
    path: 'catalogue/engine/:code',
    loadComponent: () => styled(() => import('./catalogue/engine-page').then((m) => m.EnginePage)),
  },
  {
    path: 'catalogue/own',
    loadComponent: () => styled(() => import('./catalogue/own/own-page').then((m) => m.OwnPage)),
  },
  {
    path: 'catalogue',
    loadComponent: () => styled(() => import('./catalogue/catalogue-page').then((m) => m.CataloguePage)),
  },
  {
    path: 'knowledge',
    loadComponent: () => styled(() => import('./knowledge/knowledge-page').then((m) => m.KnowledgePage)),
  },
  {
    path: 'ledger',
    loadComponent: () => styled(() => import('./ledger/ledger-page').then((m) => m.LedgerPage)),
  },
  {
    path: 'patterns',
    loadComponent: () => styled(() => import('./patterns/patterns-page').then((m) => m.PatternsPage)),
  },
  {
    path: 'practice/return/:id',
    loadComponent: () => styled(() => import('./practice/after-page').then((m) => m.AfterPage)),
  },
  {
    path: 'practice/fitting',
    loadComponent: () => styled(() => import('./practice/trainer-page').then((m) => m.TrainerPage)),
  },
  {
    path: 'practice',
    loadComponent: () => styled(() => import('./practice/practice-page').then((m) => m.PracticePage)),
  },
  {
    path: 'mail',
    loadComponent: () => styled(() => import('./mail/mail-page').then((m) => m.MailPage)),
  },
  {
    path: 'claims',
    loadComponent: () => styled(() => import('./claims/claims-page').then((m) => m.ClaimsPage)),
  },
  {
    path: 'proof',
    loadComponent: () => styled(() => import('./proof/proof-page').then((m) => m.ProofPage)),
  },
  {
    path: 'together',
    loadComponent: () => styled(() => import('./together/together-page').then((m) => m.TogetherPage)),
  },
  {
    path: 'safety',
    loadComponent: () => styled(() => import('./safety/safety-page').then((m) => m.SafetyPage)),
  },
  {
    path: 'words',
    loadComponent: () => styled(() => import('./words/words-page').then((m) => m.WordsPage)),
  },
  // with the program itself: a dozen small parts, each fetched for itself, weigh more than the page they make
  { path: '', pathMatch: 'full', component: WelcomePage },
  { path: '**', redirectTo: '' },
];

/** A part of the program that could not be fetched: said, with the way there again. */
function unreachable(e: NavigationError): void {
  inject(Fetching).failed(e.url, e.error);
}

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideBrowserGlobalErrorListeners(),
    provideRouter(routes, withComponentInputBinding(), withNavigationErrorHandler(unreachable)),
    // after the desk is open: what it fetches for later is in nobody's way
    provideServiceWorker('sw.js', {
      enabled: !isDevMode(),
      registrationStrategy: 'registerWhenStable:30000',
    }),
    provideNzIcons([CheckCircleFill, ExclamationCircleFill, InfoCircleFill]),
  ],
};
