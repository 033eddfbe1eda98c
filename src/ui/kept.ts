/** What this browser keeps for itself, outside the book. A browser that forbids it keeps nothing, and says so. */

/** Null where nothing is kept, or nothing may be. */
export function keptText(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

/** Whether it could be kept: the browser may forbid it, or its space may be used up. */
export function keepText(key: string, text: string): boolean {
  try {
    localStorage.setItem(key, text);
    return true;
  } catch {
    return false;
  }
}

export function forgetText(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // Where nothing may be kept there is nothing to forget.
  }
}
