/** Tags as they are typed, apart by commas: distinct, without blanks around them. */
export function readTags(text: string): string[] {
  const tags = text.split(',').map((tag) => tag.trim());
  return [...new Set(tags.filter(Boolean))];
}
