import {
  type ApplicationConfig,
  provideBrowserGlobalErrorListeners,
  inject,
  provideZonelessChangeDetection,
} from '@angular/core';
import {
  type NavigationError,
  provideRouter,
  type Routes,
  withComponentInputBinding,
  withNavigationErrorHandler,
} from '@angular/router';
import { CheckCircleFill, ExclamationCircleFill, InfoCircleFill } from '@ant-design/icons-angular/icons';
import { provideNzIcons } from 'ng-zorro-antd/icon';
import { Fetching } from './acts/fetching';

export const routes: Routes = [
  {
    path: 'case/:id',
    loadComponent: () => import('./shell/case-page').then((m) => m.CasePage),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'call' },
      { path: 'call', loadComponent: () => import('./stations/call/call-page').then((m) => m.CallPage) },
      {
        path: 'identify',
        loadComponent: () => import('./stations/identify/identify-page').then((m) => m.IdentifyPage),
      },
      { path: 'fit', loadComponent: () => import('./stations/fit/fit-page').then((m) => m.FitPage) },
      {
        path: 'examine',
        loadComponent: () => import('./stations/examine/examine-page').then((m) => m.ExaminePage),
      },
      { path: 'cause', loadComponent: () => import('./stations/cause/cause-page').then((m) => m.CausePage) },
      { path: 'drive', loadComponent: () => import('./drive/drive-page').then((m) => m.DrivePage) },
      {
        path: 'settle',
        loadComponent: () => import('./stations/settle/settle-page').then((m) => m.SettlePage),
      },
    ],
  },
  {
    path: 'drive',
    loadComponent: () => import('./drive/free-page').then((m) => m.FreeDrivePage),
  },
  {
    path: 'catalogue',
    loadComponent: () => import('./catalogue/catalogue-page').then((m) => m.CataloguePage),
  },
  {
    path: '',
    pathMatch: 'full',
    loadComponent: () => import('./shell/welcome-page').then((m) => m.WelcomePage),
  },
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
    provideNzIcons([CheckCircleFill, ExclamationCircleFill, InfoCircleFill]),
  ],
};
