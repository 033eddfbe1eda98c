/** What a check found on a document. `must` blocks issuing, `should` asks first, `note` only tells. */
export interface Finding {
  /** Public id of the rule. */
  readonly rule: string;
  readonly severity: 'must' | 'should' | 'note';
  /** The field to mend: a path in the draft, or `business.…`, `customer.…`, `registration.…` in Setup. */
  readonly field: string;
  /** Plain words that say how to mend it. */
  readonly message: string;
  /** Law or standard the rule comes from. */
  readonly source: string;
}
