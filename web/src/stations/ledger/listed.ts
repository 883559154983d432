/** Measures typed one after the other, apart. */

/**
 * `4; 4 1/16; 4`, `101.5 102 100.8`, `101,5 102`: apart at a semicolon, at a comma with a space, and at a space before the next number, but
 * not between a whole number and the fraction that belongs to it.
 */
export function listed(text: string): string[] {
  return text
    .split(/\s*[;\n]\s*|,\s+|(?<!(?:^|[\s;,])\d+)\s+(?=\d)|(?<=(?:^|[\s;,])\d+)\s+(?=\d)(?!\d+\s*[/⁄]\s*\d)/)
    .map((part) => part.trim())
    .filter(Boolean);
}
