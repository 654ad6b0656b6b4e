import type { Type } from '@angular/core';
import { DrivePage } from '../drive/drive-page';
import { CallPage } from '../stations/call/call-page';
import { CausePage } from '../stations/cause/cause-page';
import { ExaminePage } from '../stations/examine/examine-page';
import { FitPage } from '../stations/fit/fit-page';
import { IdentifyPage } from '../stations/identify/identify-page';
import { SettlePage } from '../stations/settle/settle-page';
import { TracePage } from '../stations/trace/trace-page';

/** Every page of a case. */
export const CASE_PAGES: readonly Type<unknown>[] = [
  CallPage,
  IdentifyPage,
  FitPage,
  ExaminePage,
  TracePage,
  CausePage,
  SettlePage,
  DrivePage,
];
