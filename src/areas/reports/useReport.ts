'use client';

import type { Report } from '@/core/reports/report';
import type { ReportSpan } from '@/core/reports/span';
import { reportInWorker } from '@/workers/client';
import { type Made, useMade } from '../shared/useMade';

/** Makes a report for its days and what is chosen, and again when something was posted; null days make none. */
export function useReport(name: string, span: ReportSpan | null, chosen: string): Made<Report> {
  return useMade(span === null ? '' : `${name}|${span.from}|${span.until}|${chosen}`, (signal) =>
    span === null ? Promise.reject(new RangeError('no days')) : reportInWorker(name, span, chosen, signal),
  );
}
