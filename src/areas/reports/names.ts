import { REPORTS } from '@/store/reports/catalogue';

/** Names of all reports, each a page. */
export const REPORT_NAMES: readonly string[] = REPORTS.map(({ name }) => name);
