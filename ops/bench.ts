/** npm run bench: times the measures. */
export async function main(): Promise<number> {
  await import('../bench/src/main.ts');
  return 0;
}
