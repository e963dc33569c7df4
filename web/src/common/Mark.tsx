/** Our own mark: a brick arch round an ink one. */
export function Mark({ size = 26 }: { size?: number }) {
  return <img src="/mark.svg" width={size} height={size} alt="" />;
}
