/** An id that nobody else gives: records are made on several devices at once, without a server. */
export function newId(): string {
  const random = crypto.getRandomValues(new Uint8Array(9));
  return `r${Date.now().toString(36)}-${Array.from(random, (b) => (b % 36).toString(36)).join('')}`;
}
