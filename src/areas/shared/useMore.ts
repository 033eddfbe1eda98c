'use client';

import { useState } from 'react';

/** A list that begins with a page and grows as one asks for more, each time to four times as much. */
export function useMore(page = 100) {
  const [limit, setLimit] = useState(page);
  return {
    /** How many rows to look up: one more than is shown tells whether there are more. */
    ask: limit + 1,
    /** What of the rows is shown, and the way to more where there are any. */
    of<Row>(rows: readonly Row[] | undefined) {
      const more = (rows?.length ?? 0) > limit;
      return { rows: rows?.slice(0, limit), onMore: more ? () => setLimit(limit * 4) : undefined };
    },
    /** Begins again, for another search. */
    again: () => setLimit(page),
  };
}
