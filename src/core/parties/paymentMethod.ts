/** How money came. */
export type PaymentMethod = 'bank' | 'cash' | 'cheque' | 'card' | 'other';

export const PAYMENT_METHODS: readonly PaymentMethod[] = ['bank', 'cash', 'cheque', 'card', 'other'];
