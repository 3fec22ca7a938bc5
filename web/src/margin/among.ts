import { figure } from '../theme/ink'

/** Where a score lies among those of other codebases. */
export const liesAmong = (lower: number, others: number): string =>
  lower === 0
    ? `Lower than that of all ${figure(others)} codebases it was compared with.`
    : lower === others
      ? `Higher than that of all ${figure(others)} codebases it was compared with.`
      : `Higher than that of ${figure(lower)} of ${figure(others)} codebases it was compared with.`
