import type { Type } from '@angular/core';
import type { Route } from '@angular/router';
import type { Station } from '@core/facts/stations';
import { styled } from './ui/controls-styles';

/** The page of each station; its folder is fetched when it is gone to. */
const PAGES: Readonly<Record<Station, () => Promise<Type<unknown>>>> = {
  call: () => import('./stations/call/call-page').then((m) => m.CallPage),
  identify: () => import('./stations/identify/identify-page').then((m) => m.IdentifyPage),
  fit: () => import('./stations/fit/fit-page').then((m) => m.FitPage),
  examine: () => import('./stations/examine/examine-page').then((m) => m.ExaminePage),
  cause: () => import('./stations/cause/cause-page').then((m) => m.CausePage),
  settle: () => import('./stations/settle/settle-page').then((m) => m.SettlePage),
};

export const STATION_ROUTES: Route[] = Object.entries(PAGES).map(([path, page]) => ({
  path,
  loadComponent: () => styled(page),
}));
