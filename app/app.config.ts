import {
  type ApplicationConfig,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
} from '@angular/core';
import { provideRouter, type Routes, withComponentInputBinding } from '@angular/router';
import { CheckCircleFill, ExclamationCircleFill, InfoCircleFill } from '@ant-design/icons-angular/icons';
import { provideNzIcons } from 'ng-zorro-antd/icon';

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

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideBrowserGlobalErrorListeners(),
    provideRouter(routes, withComponentInputBinding()),
    provideNzIcons([CheckCircleFill, ExclamationCircleFill, InfoCircleFill]),
  ],
};
